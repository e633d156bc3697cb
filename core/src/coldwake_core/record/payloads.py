"""What can happen on a trip: a typed payload for each kind of event, checked at the door."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Final, Literal

from ..boat.current import Current
from ..checks import require_choice, require_number, require_text
from ..constants import FOOT_M
from ..errors import InvalidInputError
from ..gear.beat import check_count
from ..gear.leader import LEADER_SCHOOLS
from ..gear.pieces import FASTEST_MPS, SLOWEST_MPS
from ..gear.setup import RodSetup, Tip
from ..gear.tackle import LONGEST_LINE_M
from ..gear.voltage import check_volts
from ..trade import Species
from .beside import Checked

DEEPEST_M: Final = 300.0
USUAL_ABOVE_MARK_M: Final = {
    "trout": 2.0 * FOOT_M, "kokanee": 2.0 * FOOT_M, "striper": 1.0 * FOOT_M,
}
"""A little above the marks: ball at 44 ft for marks at 46 (common practice); less for stripers,
which hold near the bottom (judged)."""
USUAL_CLEARANCE_M: Final = {
    "trout": 4.0 * FOOT_M, "kokanee": 4.0 * FOOT_M, "striper": 0.0,
}
"""Four feet off bottom with precise gear; stripers are fished on the bottom itself (common
practice)."""
_UUID = re.compile(r"[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}")


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
    if not isinstance(value, str) or not _UUID.fullmatch(value.lower()):
        raise InvalidInputError(name, value, "a UUID such as 0b1c…-…-…")
    return value.lower()


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


def check_photo(photo_id: str | None) -> None:
    """Raise InvalidInputError unless a photo, where there is one, has a UUID.

    Parameters
    ----------
    photo_id : str or None
        Under which the picture itself is kept.

    Raises
    ------
    InvalidInputError
        If it is none.
    """
    if photo_id is not None:
        check_uuid("photo_id", photo_id)


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
    """A fish in the net; of another species than the trip's where one is named."""

    rod_id: str
    kept: bool
    length_m: float | None = None
    species: Species | None = None
    photo_id: str | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless the length is a fish's and the photo has an id."""
        check_photo(self.photo_id)
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


@dataclass(frozen=True, slots=True, kw_only=True)
class TipMoved:
    """A rod tip raised, put back in its holder, or lowered to the water."""

    rod_id: str
    tip: Tip


@dataclass(frozen=True, slots=True, kw_only=True)
class BottomTap:
    """A rod whose ball or lure is meant to touch the bottom, or is so no longer."""

    rod_id: str
    on: bool


@dataclass(frozen=True, slots=True, kw_only=True)
class BeatCounted:
    """The tip's beat counted beside the boat, where the speed is known."""

    rod_id: str
    beats: int
    seconds: float

    def check(self) -> None:
        """Raise InvalidInputError unless it could be counted by hand."""
        check_count(self.beats, self.seconds)


@dataclass(frozen=True, slots=True, kw_only=True)
class VoltageRead:
    """A downrigger cable's voltage against the boat's metal."""

    place_id: str
    volts: float

    def check(self) -> None:
        """Raise InvalidInputError unless a cable could show it."""
        check_volts(self.volts)


@dataclass(frozen=True, slots=True, kw_only=True)
class ClearanceChosen:
    """How far off the bottom the user wants lures and balls to stay."""

    clearance_m: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a small distance."""
        require_number("clearance_m", self.clearance_m, low=0.0, high=10.0, unit="m")


@dataclass(frozen=True, slots=True, kw_only=True)
class PositionFixed:
    """Where the boat is and the course it makes over ground."""

    latitude_deg: float
    longitude_deg: float
    course_deg: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a place on earth and a course."""
        require_number("latitude_deg", self.latitude_deg, low=-85.0, high=85.0, unit="degrees")
        require_number("longitude_deg", self.longitude_deg, low=-180.0, high=180.0, unit="degrees")
        require_number("course_deg", self.course_deg, low=0.0, high=360.0, unit="degrees")


SchoolTopic = Literal[
    "cold_morning", "leader", "snubber", "setback", "mood", "colour", "marks", "earlier",
    "advice",
]
COLOUR_SCHOOLS: Final = (
    "soft_then_flash", "bright_metal", "uv_in_silt", "match_bait", "thump_first",
)
SCHOOLS: Final[dict[str, tuple[str, ...]]] = {
    "cold_morning": ("cover_water", "stay_slow"),
    "leader": LEADER_SCHOOLS,
    "snubber": ("never", "fine_on_dropper"),
    "setback": ("close_and_wild", "moderate", "long_and_quiet"),
    "mood": ("active", "usual", "tough"),
    "colour": COLOUR_SCHOOLS,
    "marks": ("above", "level"),
    "earlier": ("half", "full", "none"),
    "advice": ("weighed", "habits"),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class SchoolChosen:
    """Which school the user follows where practitioners differ, or how the fish answer today."""

    topic: SchoolTopic
    school: str

    def check(self) -> None:
        """Raise InvalidInputError unless the topic has such a school."""
        require_choice("school", self.school, SCHOOLS[self.topic])


MoveKind = Literal[
    "speed", "depth", "copy", "colour", "tackle", "tuning", "setback", "leader", "attractor",
    "lure", "bait", "scent", "turn", "s_turn", "place",
]
WhyNot = Literal["", "busy", "tried", "lacking", "doubted"]
"""Why a move was put off: no hand free, tried already, not aboard, not believed; "" where nobody
said."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PassBegun:
    """A pass through fish begins."""

    toward_deg: float | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless the heading is one."""
        if self.toward_deg is not None:
            require_number("toward_deg", self.toward_deg, low=0.0, high=360.0, unit="degrees")


@dataclass(frozen=True, slots=True, kw_only=True)
class TurnBegun:
    """The boat turns, to port or to starboard."""

    toward: Literal["port", "starboard"]


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveChange:
    """What a move does: exactly one of these."""

    line_set: LineSet | None = None
    speed_changed: SpeedChanged | None = None
    rod_rigged: RodSetup | None = None
    checked: Checked | None = None
    pass_begun: PassBegun | None = None
    turn_begun: TurnBegun | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless exactly one is given."""
        given = [change for change in self.all() if change is not None]
        if len(given) != 1:
            raise InvalidInputError(
                "change", len(given),
                "exactly one of line_set, speed_changed, rod_rigged, checked, pass_begun, "
                "turn_begun",
            )

    def all(
        self
    ) -> tuple[LineSet | SpeedChanged | RodSetup | Checked | PassBegun | TurnBegun | None, ...]:
        """Return all of them, most of them None.

        Returns
        -------
        tuple, length 6
        """
        return (
            self.line_set, self.speed_changed, self.rod_rigged, self.checked, self.pass_begun,
            self.turn_begun,
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class MoveAnswered:
    """A suggested move, taken or put off. Taking it makes its change."""

    key: str
    kind: MoveKind
    title: str
    change: MoveChange
    rod_id: str | None = None
    why: WhyNot = ""

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
