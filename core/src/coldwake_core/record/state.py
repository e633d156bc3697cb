"""The present state of a trip, and the stints that evidence is weighed from."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Final, Literal

from ..boat.current import Current
from ..boat.wind import Wind
from ..errors import UnknownItemError
from ..gear.beat import Beat
from ..gear.pieces import own_seen
from ..gear.setup import RodSetup, same_cable
from ..gear.tackle import Outfit
from ..trade import Species
from .payloads import (
    USUAL_ABOVE_MARK_M,
    USUAL_CLEARANCE_M,
    MarkSeen,
    MoveAnswered,
    PositionFixed,
    VoltageRead,
)
from .planned import DayPlan
from .trip import PastReading

SURFACE_M: Final = 1.0
"""A temperature read no deeper than this is the surface's."""

RodStatus = Literal["in", "fishing", "fish_on"]


@dataclass(frozen=True, slots=True)
class Stint:
    """A rod fishing one recipe at one number, without a break.

    Parameters
    ----------
    rod_id : str
        The rod.
    setup : RodSetup
        What was on it.
    setting_m : float
        The number set, m.
    start_s, end_s : float
        Seconds since 1970-01-01 UTC; ``end_s`` is None while it lasts.
    hits : int
        Hits within it.
    """

    rod_id: str
    setup: RodSetup
    setting_m: float
    start_s: float
    end_s: float | None = None
    hits: int = 0

    def minutes(self, now_s: float) -> float:
        """Return the rod-minutes fished until ``now_s``.

        Parameters
        ----------
        now_s : float
            Seconds since 1970-01-01 UTC.

        Returns
        -------
        float
        """
        end = now_s if self.end_s is None else min(self.end_s, now_s)
        return max(end - self.start_s, 0.0) / 60.0


@dataclass(slots=True)
class Tally:
    """The funnel of one rod: hit, hooked, landed, kept, lost."""

    hits: int = 0
    hooked: int = 0
    landed: int = 0
    kept: int = 0
    lost: int = 0


@dataclass(frozen=True, slots=True, kw_only=True)
class LandedFish:
    """A fish in the net: when, s, on which rod, if kept, how long, m, on bait, what, its photo."""

    at_s: float
    rod_id: str
    kept: bool
    length_m: float | None
    on_bait: bool
    species: Species
    photo_id: str | None = None


@dataclass(slots=True)
class RodState:
    """One rod now.

    Parameters
    ----------
    rod_id : str
        The rod.
    setup : RodSetup or None
        What is on it.
    setting_m, wanted_depth_m : float or None
        The number set last and the depth it was set for, m.
    status : RodStatus
        In, fishing or playing a fish.
    soak_since_s, bait_since_s : float or None
        When the lure last went down, and when its bait was last looked at.
    fish_on_s : float or None
        Since when a fish is on.
    open_hit_s : float or None
        A hit that has not become a hooked fish yet.
    tally : Tally
        Its funnel.
    bottom_tap : bool
        Whether it is meant to touch the bottom.
    """

    rod_id: str
    setup: RodSetup | None = None
    setting_m: float | None = None
    wanted_depth_m: float | None = None
    status: RodStatus = "in"
    soak_since_s: float | None = None
    bait_since_s: float | None = None
    fish_on_s: float | None = None
    open_hit_s: float | None = None
    tally: Tally = field(default_factory=Tally)
    bottom_tap: bool = False


@dataclass(frozen=True, slots=True)
class Reading:
    """A water temperature with its time, seconds, and depth, m."""

    at_s: float
    temperature_degc: float
    depth_m: float


@dataclass(frozen=True, slots=True)
class TimedMark:
    """A sonar mark with its time, seconds."""

    at_s: float
    mark: MarkSeen
    event_id: str


@dataclass(frozen=True, slots=True)
class Answer:
    """A suggested move with its answer and time, seconds."""

    at_s: float
    taken: bool
    move: MoveAnswered


@dataclass(frozen=True, slots=True)
class ToldBite:
    """What was told of a bite: how it felt, where the fish came off, what the line was doing."""

    at_s: float
    rod_id: str
    felt: str | None = None
    lost: str | None = None
    doing: str | None = None


@dataclass(frozen=True, slots=True)
class Pass:
    """A pass through fish, seconds; ``end_s`` is None while it lasts; which way, where told."""

    start_s: float
    end_s: float | None = None
    toward_deg: float | None = None


@dataclass(frozen=True, slots=True)
class Turn:
    """A turn that was told, to port or starboard, seconds; ``end_s`` is None while it lasts."""

    start_s: float
    toward: Literal["port", "starboard"]
    end_s: float | None = None


@dataclass(frozen=True, slots=True)
class Casting:
    """A school cast to: since when, s, with what, and what it brought.

    ``weight_kg`` in kg, ``count_s`` in s; ``end_s`` is None while it lasts.
    """

    start_s: float
    weight_kg: float
    count_s: float
    retrieve: str
    end_s: float | None = None
    hits: int = 0
    hooked: int = 0
    landed: int = 0
    lost: int = 0


@dataclass(frozen=True, slots=True)
class TimedNote:
    """Something noted: when, s, what kind, in which words, where, degrees, and its photo."""

    at_s: float
    kind: str
    text: str
    place: tuple[float, float] | None
    event_id: str
    photo_id: str | None = None


@dataclass(frozen=True, slots=True)
class CheckDone:
    """A check with its time, seconds, and what came of it."""

    at_s: float
    outcome: Literal["ok", "fault", "skipped"]


@dataclass(frozen=True, slots=True)
class LookDue:
    """A lure to look at again: since when, seconds, and why."""

    at_s: float
    why: str


@dataclass(slots=True)
class TripState:
    """Everything the events of a trip add up to."""

    outfit: Outfit
    rods: dict[str, RodState]
    bottom_m: float
    deepest_m: float
    sounded_at_s: float | None = None
    fix: tuple[float, PositionFixed] | None = None
    sounded_fix: tuple[float, PositionFixed] | None = None
    kept_off_m: float | None = None
    speed_mps: float | None = None
    speeds: list[tuple[float, float]] = field(default_factory=list)
    readings: list[Reading] = field(default_factory=list)
    marks: list[TimedMark] = field(default_factory=list)
    answers: list[Answer] = field(default_factory=list)
    stints: list[Stint] = field(default_factory=list)
    stint_of: dict[str, int] = field(default_factory=dict)
    bites: list[tuple[float, str, str]] = field(default_factory=list)
    landed: list[LandedFish] = field(default_factory=list)
    turns: list[Turn] = field(default_factory=list)
    castings: list[Casting] = field(default_factory=list)
    tangles: list[tuple[float, RodSetup]] = field(default_factory=list)
    depth_readings: list[PastReading] = field(default_factory=list)
    set_aside: set[str] = field(default_factory=set)
    beats: dict[tuple[str | None, str], Beat] = field(default_factory=dict)
    voltages: list[tuple[float, VoltageRead]] = field(default_factory=list)
    current: Current | None = None
    wind: Wind | None = None
    schools: dict[str, str] = field(default_factory=dict)
    offset_m: float | None = None
    species: Species = "trout"
    last_event_id: str | None = None
    last_event_type: str | None = None
    ended: bool = False
    checks: dict[tuple[str, str], CheckDone] = field(default_factory=dict)
    looks_due: dict[str, LookDue] = field(default_factory=dict)
    surface: Reading | None = None
    plan: DayPlan | None = None
    told: dict[tuple[str, float], ToldBite] = field(default_factory=dict)
    bait_looks: dict[str, tuple[float, ...]] = field(default_factory=dict)
    passes: list[Pass] = field(default_factory=list)
    notes: list[TimedNote] = field(default_factory=list)
    fixes: list[tuple[float, PositionFixed]] = field(default_factory=list)
    soundings: list[tuple[float, float, float]] = field(default_factory=list)

    def copy(self) -> TripState:
        """Return a state that can go on without this one: what it lists is never changed in place.

        Returns
        -------
        TripState
        """
        other = replace(self)
        for name in self.__slots__:
            value = getattr(self, name)
            if isinstance(value, list | dict | set):
                setattr(other, name, value.copy())
        other.rods = {
            key: replace(rod, tally=replace(rod.tally)) for key, rod in self.rods.items()
        }
        return other

    @property
    def above_mark_m(self) -> float:
        """How far above a mark a lure is run, m: as chosen, or by species and school."""
        if self.offset_m is not None:
            return self.offset_m
        return 0.0 if self.schools.get("marks") == "level" else USUAL_ABOVE_MARK_M[self.species]

    @property
    def clearance_m(self) -> float:
        """What lures are kept off the bottom, m: as chosen, or by species."""
        return USUAL_CLEARANCE_M[self.species] if self.kept_off_m is None else self.kept_off_m

    @property
    def surface_degc(self) -> float | None:
        """Latest surface temperature, degrees Celsius."""
        return None if self.surface is None else self.surface.temperature_degc

    def mates_of(self, setup: RodSetup) -> tuple[RodSetup, ...]:
        """Return what else is out on the same downrigger cable, as far as it is aboard."""
        others = [
            rod.setup for rod in self.rods.values()
            if rod.setup is not None and rod.status == "fishing" and self.has_line(rod.setup)
        ]
        return same_cable(self.outfit, setup, others) if self.has_line(setup) else ()

    def has_line(self, setup: RodSetup) -> bool:
        """Return whether a rod's line is aboard: what brought it may have been taken back."""
        try:
            self.outfit.line(setup.line_id)
        except UnknownItemError:
            return False
        return True

    def beat_of(self, setup: RodSetup) -> Beat | None:
        """Return the tip's beat counted beside the boat: on this trip, else on an earlier one."""
        counted = self.beats.get((setup.attractor_id, setup.lure_id))
        if counted is not None:
            return counted
        if setup.attractor_id is not None:
            seen = own_seen(self.outfit.attractor(setup.attractor_id).own, setup.tow_point)
        else:
            seen = own_seen(self.outfit.lure(setup.lure_id).own)
        return None if seen is None else seen.beat

    def profile(self) -> list[tuple[float, float]]:
        """Return the latest temperature at each depth read, as (depth m, degrees Celsius)."""
        latest = {reading.depth_m: reading.temperature_degc for reading in self.readings}
        return sorted(latest.items())
