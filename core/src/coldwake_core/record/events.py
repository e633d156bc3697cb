"""Event types of a trip: what can happen, with a typed payload each, checked at the door."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Final, Literal

from ..boat.current import Current
from ..checks import require_choice, require_number, require_text
from ..constants import FOOT_M, MPH_MPS
from ..decode import decode, encode
from ..errors import InvalidInputError
from ..gear.setup import RodSetup
from ..gear.tackle import FASTEST_MPS, LONGEST_LINE_M

SLOWEST_MPS: Final = 0.1 * MPH_MPS
DEEPEST_M: Final = 300.0
_UUID = re.compile(r"^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$")


def check_depth(name: str, value: object, *, above: float | None = 0.0) -> float:
    """Return a depth, m, that a lake could have.

    Parameters
    ----------
    name : str
        Name of the input, for the message.
    value : object
        What came in, m.
    above : float or None
        Exclusive lower bound, m; None lets 0 in.

    Returns
    -------
    float

    Raises
    ------
    InvalidInputError
        If it is no such depth.
    """
    return require_number(name, value, low=0.0, above=above, high=DEEPEST_M, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class LineSet:
    """A line let out to a number. ``wanted_depth_m`` is the depth it was set for, if any."""

    rod_id: str
    setting_m: float
    wanted_depth_m: float | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless this is a length of line."""
        require_number("setting_m", self.setting_m, above=0.0, high=LONGEST_LINE_M, unit="m")
        if self.wanted_depth_m is not None:
            check_depth("wanted_depth_m", self.wanted_depth_m)


@dataclass(frozen=True, slots=True, kw_only=True)
class RodOnly:
    """Something about one rod that needs no more to be said."""

    rod_id: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Landed:
    """A fish in the net."""

    rod_id: str
    kept: bool
    length_m: float | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless the length is a fish's."""
        if self.length_m is not None:
            require_number("length_m", self.length_m, low=0.03, high=2.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class SpeedChanged:
    """The boat's speed through the water."""

    speed_mps: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a trolling speed."""
        require_number(
            "speed_mps", self.speed_mps, low=SLOWEST_MPS, high=FASTEST_MPS, unit="m/s"
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class TemperatureRead:
    """A water temperature, at the surface unless a depth is given."""

    temperature_degc: float
    depth_m: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless it is a lake's."""
        require_number(
            "temperature_degc", self.temperature_degc, low=-1.0, high=40.0, unit="°C"
        )
        check_depth("depth_m", self.depth_m, above=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class MarkSeen:
    """A fish, or a school, on the sonar."""

    depth_m: float
    count: int = 1

    def check(self) -> None:
        """Raise InvalidInputError unless depth and count can be."""
        check_depth("depth_m", self.depth_m)
        require_number("count", self.count, low=1, high=500)


@dataclass(frozen=True, slots=True, kw_only=True)
class Sounded:
    """Depth of the bottom under the boat."""

    bottom_m: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a depth."""
        check_depth("bottom_m", self.bottom_m)


@dataclass(frozen=True, slots=True, kw_only=True)
class OffsetChosen:
    """How far above marks the user wants lures."""

    above_mark_m: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a small distance."""
        require_number("above_mark_m", self.above_mark_m, low=-5.0, high=10.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class CurrentNoted:
    """The current under the boat: typed, or found from two runs."""

    speed_mps: float
    toward_deg: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a current one could fish in."""
        Current(speed_mps=self.speed_mps, toward_deg=self.toward_deg).check()


@dataclass(frozen=True, slots=True, kw_only=True)
class DepthSeen:
    """A lure or ball seen at a depth: it touched bottom, or stood on the sonar."""

    rod_id: str
    setting_m: float
    speed_mps: float
    depth_m: float
    of: Literal["lure", "ball"] = "lure"

    def check(self) -> None:
        """Raise InvalidInputError unless it could be seen."""
        require_number("setting_m", self.setting_m, above=0.0, high=LONGEST_LINE_M, unit="m")
        require_number("speed_mps", self.speed_mps, low=SLOWEST_MPS, high=FASTEST_MPS, unit="m/s")
        check_depth("depth_m", self.depth_m)


@dataclass(frozen=True, slots=True, kw_only=True)
class ReadingSetAside:
    """A depth that was seen, set aside or taken up again."""

    event_id: str
    aside: bool

    def check(self) -> None:
        """Raise InvalidInputError unless it names an event."""
        check_uuid("event_id", self.event_id)


SchoolTopic = Literal["cold_morning"]
SCHOOLS: Final[dict[str, tuple[str, ...]]] = {"cold_morning": ("cover_water", "stay_slow")}


@dataclass(frozen=True, slots=True, kw_only=True)
class SchoolChosen:
    """Which school the user follows where practitioners differ."""

    topic: SchoolTopic
    school: str

    def check(self) -> None:
        """Raise InvalidInputError unless the topic has such a school."""
        require_choice("school", self.school, SCHOOLS[self.topic])


MoveKind = Literal["speed", "depth", "copy", "colour", "tackle"]


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveChange:
    """What a move does: exactly one of the three."""

    line_set: LineSet | None = None
    speed_changed: SpeedChanged | None = None
    rod_rigged: RodSetup | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless exactly one is given."""
        given = [c for c in (self.line_set, self.speed_changed, self.rod_rigged) if c is not None]
        if len(given) != 1:
            raise InvalidInputError(
                "change", len(given), "exactly one of line_set, speed_changed, rod_rigged"
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveAnswered:
    """A suggested move, taken or put off. Taking it makes its change."""

    key: str
    kind: MoveKind
    title: str
    change: MoveChange
    rod_id: str | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless key and title are short texts."""
        require_text("key", self.key, longest=120)
        require_text("title", self.title, longest=200)


@dataclass(frozen=True, slots=True, kw_only=True)
class Undone:
    """Another event taken back. An undoing can itself be undone."""

    event_id: str

    def check(self) -> None:
        """Raise InvalidInputError unless it names an event."""
        check_uuid("event_id", self.event_id)


@dataclass(frozen=True, slots=True, kw_only=True)
class Nothing:
    """An event that needs no more than its name."""


Payload = (
    RodSetup | LineSet | RodOnly | Landed | SpeedChanged | TemperatureRead | MarkSeen | Sounded
    | OffsetChosen | CurrentNoted | DepthSeen | ReadingSetAside | SchoolChosen | MoveAnswered
    | Undone | Nothing
)

EVENT_TYPES: Final[dict[str, type]] = {
    "rod_rigged": RodSetup,
    "line_set": LineSet,
    "line_in": RodOnly,
    "bait_checked": RodOnly,
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
    "depth_seen": DepthSeen,
    "reading_set_aside": ReadingSetAside,
    "school_chosen": SchoolChosen,
    "move_taken": MoveAnswered,
    "move_refused": MoveAnswered,
    "undone": Undone,
    "trip_ended": Nothing,
}


def check_uuid(name: str, value: object) -> str:
    """Return a UUID in its usual lower-case form.

    Parameters
    ----------
    name : str
        Name of the input, for the message.
    value : object
        What came in.

    Returns
    -------
    str

    Raises
    ------
    InvalidInputError
        If it is none.
    """
    if not isinstance(value, str) or not _UUID.match(value.lower()):
        raise InvalidInputError(name, value, "a UUID such as 0b1c…-…-…")
    return value.lower()


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


DEFAULT_ABOVE_MARK_M: Final = 2.0 * FOOT_M
"""A little above the marks: ball at 44 ft for marks at 46 (common practice)."""
