"""Whether an event can follow the state it meets."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from ..errors import InvalidInputError, UnknownItemError
from ..gear.setup import RodSetup, build_rig, rig_kind, same_cable
from ..gear.tackle import OUTFIT_LISTS, Place
from ..lines.calibration import DepthReading
from ..lines.rigs import Rig
from .beside import Auditioned, Checked, LookAgain, TackleBrought
from .events import Event
from .payloads import (
    BeatCounted,
    BottomTap,
    DepthSeen,
    Landed,
    LineSet,
    MarkSeen,
    MoveAnswered,
    ReadingSetAside,
    RodOnly,
    TipMoved,
    VoltageRead,
)
from .sound import rod_fault
from .state import RodState, TripState
from .told import BiteTold


def check_against(state: TripState, event: Event, *, bottom_m: float) -> None:
    """Raise unless an event can follow the state it meets.

    Parameters
    ----------
    state : TripState
        State before the event.
    event : Event
        The event, checked in itself.
    bottom_m : float
        Depth of the bottom where it happened, as far as that is known, m.

    Raises
    ------
    UnknownItemError
        If it names something that is not aboard.
    InvalidInputError
        If it puts a lure below the bottom or more line out than the reel holds.
    """
    payload: Any = event.payload
    changes = [payload]
    if isinstance(payload, MoveAnswered):
        changes = [change for change in payload.change.all() if change is not None]
    for item in changes:
        _check_item(state, item, bottom_m)


def _check_item(state: TripState, item: Any, bottom_m: float) -> None:
    if isinstance(item, RodSetup):
        _named("payload.", lambda: _rig_on_this_boat(state, item).check())
    elif isinstance(item, LineSet):
        rod = _rod(state, item.rod_id)
        if rod.setup is None:
            raise InvalidInputError("payload.rod_id", item.rod_id, "a rod that has been rigged")
        longest = _named_rig(state, rod.setup).longest_m
        if item.setting_m > longest * (1 + 1e-9):
            raise InvalidInputError(
                "payload.setting_m", item.setting_m,
                f"<= {longest:.1f} m, which is what the reel holds", high=longest,
                reason="reel",
            )
        if item.wanted_depth_m is not None and item.wanted_depth_m > bottom_m:
            raise InvalidInputError(
                "payload.wanted_depth_m", item.wanted_depth_m,
                f"above the bottom, which is at {bottom_m:.1f} m", high=bottom_m,
                reason="bottom",
            )
    elif isinstance(item, MarkSeen):
        if item.depth_m > bottom_m:
            raise InvalidInputError(
                "payload.depth_m", item.depth_m,
                f"above the bottom, which is at {bottom_m:.1f} m: sound it anew first",
                high=bottom_m, reason="bottom",
            )
    elif isinstance(item, TipMoved):
        rod = _rod(state, item.rod_id)
        if rod.setup is None or state.outfit.place(rod.setup.place_id).kind != "holder":
            raise InvalidInputError(
                "payload.rod_id", item.rod_id, "a rigged rod in a holder, whose tip can move"
            )
    elif isinstance(item, VoltageRead):
        if _place(state, item.place_id).kind != "downrigger":
            raise InvalidInputError("payload.place_id", item.place_id, "a downrigger with a cable")
    elif isinstance(item, BeatCounted):
        rod = _rod(state, item.rod_id)
        if rod.setup is None or state.speed_mps is None:
            raise InvalidInputError(
                "payload.rod_id", item.rod_id, "a rigged rod, once the speed is set"
            )
    elif isinstance(item, RodOnly | Landed | BottomTap | BiteTold):
        _rod(state, item.rod_id)
    elif isinstance(item, Checked | LookAgain):
        if item.rod_id is not None:
            _rod(state, item.rod_id)
    elif isinstance(item, Auditioned):
        _check_audition(state, item)
    elif isinstance(item, TackleBrought):
        _check_brought(state, item)
    elif isinstance(item, DepthSeen):
        _check_depth_seen(state, item)
    elif isinstance(item, ReadingSetAside) and all(
        reading.id != item.event_id for reading in state.depth_readings
    ):
        raise UnknownItemError("payload.event_id", item.event_id, "a depth that was seen")


def _named_rig(state: TripState, setup: RodSetup) -> Rig:
    """The rig of a rod that is rigged; what it wore may have been taken back since."""
    try:
        return build_rig(state.outfit, setup)
    except InvalidInputError as error:
        raise InvalidInputError(
            "payload.rod_id", setup.rod_id, f"a rod that can be fished ({error.message}): rig it"
        ) from None


def _rig_on_this_boat(state: TripState, setup: RodSetup) -> Rig:
    """The rig with the lines that ride the same cable, out or not: each has its own clip."""
    others = [
        rod.setup for rod in state.rods.values()
        if rod.setup is not None and state.has_line(rod.setup)
    ]
    build_rig(state.outfit, setup)
    return build_rig(state.outfit, setup, same_cable(state.outfit, setup, others))


def _check_depth_seen(state: TripState, item: DepthSeen) -> None:
    rod = _rod(state, item.rod_id)
    if rod.setup is None:
        raise InvalidInputError("payload.rod_id", item.rod_id, "a rod that has been rigged")
    rig = build_rig(state.outfit, rod.setup, state.mates_of(rod.setup))
    if item.of == "ball" and rig_kind(state.outfit, rod.setup) in ("flat", "leadcore"):
        raise InvalidInputError("payload.of", item.of, "lure: this line has no ball")
    reading = DepthReading(
        id="", rig=rig, setting_m=item.setting_m, speed_mps=item.speed_mps, depth_m=item.depth_m,
        of=item.of, sounder=state.outfit.sounder if item.of == "ball" else None,
    )
    _named("payload.", reading.check)
    if item.setting_m > rig.longest_m:
        raise InvalidInputError(
            "payload.setting_m", item.setting_m,
            f"<= {rig.longest_m:.1f} m, which is what the reel holds", high=rig.longest_m,
            reason="reel",
        )


def _check_audition(state: TripState, item: Auditioned) -> None:
    try:
        if item.piece == "lure":
            state.outfit.lure(item.piece_id)
            points: list[str] = []
        else:
            points = [p.name for p in state.outfit.attractor(item.piece_id).tow_points]
    except UnknownItemError as error:
        raise UnknownItemError("payload.piece_id", item.piece_id, error.requirement) from None
    if item.tow_point and item.tow_point not in points:
        raise UnknownItemError(
            "payload.tow_point", item.tow_point, "one of " + (", ".join(points) or "none")
        )


def _check_brought(state: TripState, item: TackleBrought) -> None:
    """Whatever is replaced, the rods that are rigged must still be able to stand as they are."""
    outfit = state.outfit
    for name in OUTFIT_LISTS:
        outfit = outfit.with_items(name, getattr(item, name))
    for rod in state.rods.values():
        if rod.setup is not None and rod_fault(state, rod) is None:
            try:
                build_rig(outfit, rod.setup)
            except InvalidInputError as error:
                raise InvalidInputError(
                    f"payload.{error.field}", error.value,
                    f"left as it is while {rod.rod_id} is rigged with it ({error.requirement})",
                ) from None


def _place(state: TripState, place_id: str) -> Place:
    for place in state.outfit.places:
        if place.id == place_id:
            return place
    raise UnknownItemError(
        "payload.place_id", place_id,
        "one of " + ", ".join(place.id for place in state.outfit.places),
    )


def _rod(state: TripState, rod_id: str) -> RodState:
    if rod_id not in state.rods:
        raise UnknownItemError(
            "payload.rod_id", rod_id, "one that is aboard: " + ", ".join(state.rods)
        )
    return state.rods[rod_id]


def _named(prefix: str, act: Callable[[], object]) -> None:
    try:
        act()
    except InvalidInputError as error:
        error.field = prefix + error.field
        raise
