"""Event types of a trip: what can happen, when, and how it comes in from JSON."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final

from ..boat.wind import Wind
from ..checks import require_choice, require_number
from ..decode import decode, encode
from ..errors import InvalidInputError
from ..gear.setup import RodSetup
from .beside import Auditioned, Checked, LookAgain, TackleBrought
from .casting import CastBite, CastingBegun
from .payloads import (
    BeatCounted,
    BottomTap,
    ClearanceChosen,
    CurrentNoted,
    DepthSeen,
    Landed,
    LineSet,
    MarkSeen,
    MoveAnswered,
    Nothing,
    OffsetChosen,
    PassBegun,
    PositionFixed,
    ReadingSetAside,
    RodOnly,
    SchoolChosen,
    Sounded,
    SpeedChanged,
    TemperatureRead,
    TipMoved,
    TurnBegun,
    Undone,
    VoltageRead,
    check_uuid,
)
from .planned import DayPlan
from .told import BiteTold, Noted

Payload = (
    RodSetup | LineSet | RodOnly | Landed | SpeedChanged | TemperatureRead | MarkSeen | Sounded
    | OffsetChosen | CurrentNoted | DepthSeen | ReadingSetAside | TipMoved | BottomTap
    | BeatCounted | VoltageRead | ClearanceChosen | PositionFixed | SchoolChosen | MoveAnswered
    | Undone | Nothing | Auditioned | Checked | LookAgain | TackleBrought | Wind
    | DayPlan | BiteTold | PassBegun | Noted | TurnBegun | CastingBegun | CastBite
)

EVENT_TYPES: Final[dict[str, type]] = {
    "rod_rigged": RodSetup,
    "line_set": LineSet,
    "line_in": RodOnly,
    "bait_checked": RodOnly,
    "tangled": RodOnly,
    "hit": RodOnly,
    "hooked": RodOnly,
    "landed": Landed,
    "lost": RodOnly,
    "speed_changed": SpeedChanged,
    "temperature_read": TemperatureRead,
    "mark_seen": MarkSeen,
    "sounded": Sounded,
    "offset_chosen": OffsetChosen,
    "current_noted": CurrentNoted,
    "wind_noted": Wind,
    "depth_seen": DepthSeen,
    "reading_set_aside": ReadingSetAside,
    "tip_moved": TipMoved,
    "bottom_tap": BottomTap,
    "board_reset": RodOnly,
    "beat_counted": BeatCounted,
    "voltage_read": VoltageRead,
    "clearance_chosen": ClearanceChosen,
    "position_fixed": PositionFixed,
    "school_chosen": SchoolChosen,
    "move_taken": MoveAnswered,
    "move_refused": MoveAnswered,
    "undone": Undone,
    "trip_ended": Nothing,
    "auditioned": Auditioned,
    "checked": Checked,
    "look_again": LookAgain,
    "tackle_brought": TackleBrought,
    "day_planned": DayPlan,
    "bite_told": BiteTold,
    "pass_begun": PassBegun,
    "pass_ended": Nothing,
    "noted": Noted,
    "turn_begun": TurnBegun,
    "turn_ended": Nothing,
    "casting_begun": CastingBegun,
    "casting_ended": Nothing,
    "cast_bite": CastBite,
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Event:
    """Something that happened.

    Parameters
    ----------
    id : str
        UUID made where it happened; posting it twice changes nothing.
    at_s : float
        Time, seconds since 1970-01-01 UTC.
    type : str
        One of EVENT_TYPES.
    payload : Payload
        What happened.
    """

    id: str
    at_s: float
    type: str
    payload: Payload


_EARLIEST_S = 946684800.0  # 2000-01-01: no clock aboard is older than the app
_LATEST_S = 4102444800.0  # 2100-01-01


def decode_event(data: object) -> Event:
    """Return an event from JSON data, checked in itself; the trip is not looked at.

    Parameters
    ----------
    data : object
        A mapping with id, at_s, type and payload.

    Returns
    -------
    Event

    Raises
    ------
    InvalidInputError
        Naming the offending field.
    """
    if not isinstance(data, Mapping):
        raise InvalidInputError("event", data, "an object with id, at_s, type and payload")
    for name in data:
        if name not in ("id", "at_s", "type", "payload"):
            raise InvalidInputError(
                str(name)[:60], data[name], "left out: an event has no such field"
            )
    kind = require_choice("type", data.get("type"), EVENT_TYPES)
    return Event(
        id=check_uuid("id", data.get("id")),
        at_s=require_number("at_s", data.get("at_s"), low=_EARLIEST_S, high=_LATEST_S, unit="s"),
        type=kind,
        payload=decode(EVENT_TYPES[kind], data.get("payload", {}), field="payload"),
    )


def encode_event(event: Event) -> dict[str, Any]:
    """Return the JSON form of an event.

    Parameters
    ----------
    event : Event
        The event.

    Returns
    -------
    dict
    """
    return {
        "id": event.id, "at_s": event.at_s, "type": event.type, "payload": encode(event.payload)
    }
