"""The fold of what is looked at beside the boat, and of tackle brought aboard."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any, Final

from ..boat.wind import Wind
from ..gear.beat import Beat
from ..gear.inspection import LOOK_ITEMS
from ..gear.pieces import Attractor, Lure, OwnRange
from ..gear.setup import RodSetup
from ..gear.tackle import OUTFIT_LISTS
from .beside import Auditioned, Checked, LookAgain, TackleBrought
from .state import CheckDone, LookDue, RodState, TripState

TURNED_DEG: Final = 60.0
"""A change of course by this much is a turn after which lures are looked at again (judged)."""
WIND_SHIFT_DEG: Final = 45.0
WIND_SHIFT_MPS: Final = 0.15
"""A wind that backs so far, or sets the boat so much faster or slower, has shifted (judged)."""


AGAIN: Final[dict[str, str]] = {
    "turn": "the boat has turned",
    "wind": "the wind has shifted",
    "waves": "waves or rain changed the boat's pace",
    "bent": "it was bent or fouled",
}
"""Why a lure is looked at again, in words."""


def _auditioned(state: TripState, at_s: float, item: Auditioned, _: str) -> None:
    beat = next(
        (beat for body, beat in state.beats.items() if item.piece_id in body), None
    )
    seen = OwnRange(works=item.range(), at_s=at_s, tow_point=item.tow_point, beat=beat)
    lists = "attractors" if item.piece == "attractor" else "lures"
    changed: list[Attractor | Lure] = []
    for piece in getattr(state.outfit, lists):
        if piece.id == item.piece_id:
            others = tuple(own for own in piece.own if own.tow_point != item.tow_point)
            changed.append(replace(piece, own=(*others, seen)))
    state.outfit = state.outfit.with_items(lists, tuple(changed))
    for rod in state.rods.values():
        setup = rod.setup
        if setup is not None and item.piece_id in (setup.attractor_id, setup.lure_id):
            state.looks_due.pop(rod.rod_id, None)


def apply_checked(state: TripState, at_s: float, item: Checked) -> None:
    """Keep a check, and drop the prompt it answers.

    Parameters
    ----------
    state : TripState
        The state, changed in place.
    at_s : float
        When, seconds since 1970-01-01 UTC.
    item : Checked
        What was looked at.
    """
    state.checks[item.rod_id or "", item.item] = CheckDone(at_s=at_s, outcome=item.outcome)
    if item.item in LOOK_ITEMS and item.outcome == "ok" and item.rod_id is not None:
        state.looks_due.pop(item.rod_id, None)


def keep_beat(state: TripState, setup: RodSetup, beat: Beat) -> None:
    """Keep the tip's beat with what was seen of the piece that makes it.

    Parameters
    ----------
    state : TripState
        The state, changed in place.
    setup : RodSetup
        What is on the rod.
    beat : Beat
        What was counted.
    """
    lists, key, point = "lures", setup.lure_id, ""
    if setup.attractor_id is not None:
        lists, key, point = "attractors", setup.attractor_id, setup.tow_point
    state.outfit = state.outfit.with_items(lists, tuple(
        replace(piece, own=_with_beat(piece.own, point, beat))
        for piece in getattr(state.outfit, lists) if piece.id == key
    ))


def _with_beat(own: tuple[OwnRange, ...], tow_point: str, beat: Beat) -> tuple[OwnRange, ...]:
    return tuple(
        replace(item, beat=beat) if item.tow_point == tow_point else item for item in own
    )


def _checked(state: TripState, at_s: float, item: Checked, _: str) -> None:
    apply_checked(state, at_s, item)


def _look_again(state: TripState, at_s: float, item: LookAgain, _: str) -> None:
    look_again(state, at_s, item.why, rod_id=item.rod_id)


def look_again(state: TripState, at_s: float, why: str, *, rod_id: str | None = None) -> None:
    """Have lures looked at again.

    Parameters
    ----------
    state : TripState
        The state, changed in place.
    at_s : float
        Since when, seconds since 1970-01-01 UTC.
    why : str
        What happened.
    rod_id : str or None
        One rod; None means every rod that is fishing.
    """
    for rod in state.rods.values():
        if rod_id == rod.rod_id or (rod_id is None and rod.status == "fishing"):
            state.looks_due[rod.rod_id] = LookDue(at_s=at_s, why=why)


def _wind(state: TripState, at_s: float, item: Wind, _: str) -> None:
    before, state.wind = state.wind, item
    if before is None:
        return
    backed = abs((item.from_deg - before.from_deg + 180.0) % 360.0 - 180.0)
    if backed >= WIND_SHIFT_DEG or abs(item.drift_mps - before.drift_mps) >= WIND_SHIFT_MPS:
        look_again(state, at_s, "wind")


def _brought(state: TripState, at_s: float, item: TackleBrought, _: str) -> None:
    for name in OUTFIT_LISTS:
        brought = getattr(item, name)
        if brought:
            state.outfit = state.outfit.with_items(name, brought)
    for rod in item.rods:
        state.rods.setdefault(rod.id, RodState(rod_id=rod.id))


APPLY_BESIDE: Final[dict[str, Callable[[TripState, float, Any, str], None]]] = {
    "auditioned": _auditioned,
    "checked": _checked,
    "look_again": _look_again,
    "tackle_brought": _brought,
    "wind_noted": _wind,
}
