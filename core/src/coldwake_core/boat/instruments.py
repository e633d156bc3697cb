"""What instruments say: who is believed, how old it is, and what of it says something new."""

from __future__ import annotations

import math
from collections import deque
from dataclasses import dataclass
from typing import Final, Literal

from ..chart.grid import GeoPoint
from ..checks import require_number, require_text
from ..errors import InvalidInputError
from .following import Fix, Follower

Quantity = Literal[
    "place", "course", "ground_speed", "water_speed", "depth", "water_temperature",
    "wind_speed", "wind_angle", "heading", "mark",
]
State = Literal["used", "other", "stale", "wrong", "replayed"]
STALE_S: Final[dict[Quantity, float]] = {
    "place": 10.0, "course": 10.0, "ground_speed": 10.0, "water_speed": 10.0, "depth": 10.0,
    "water_temperature": 60.0, "wind_speed": 30.0, "wind_angle": 30.0, "heading": 10.0,
    "mark": 60.0,
}
"""Older than this is no value of now (judged: instruments speak every second or two)."""
BOUNDS: Final[dict[Quantity, tuple[float, float]]] = {
    "course": (0.0, 360.0), "ground_speed": (0.0, 25.0), "water_speed": (0.0, 15.0),
    "depth": (0.3, 300.0), "water_temperature": (-1.0, 40.0), "wind_speed": (0.0, 60.0),
    "wind_angle": (0.0, 360.0), "heading": (0.0, 360.0), "mark": (0.3, 300.0),
}
"""What a boat that trolls can meet; a depth of nothing is weeds or bubbles under the transducer."""
FIX_M: Final = 6.0
"""Accuracy of a place whose receiver tells none, m (judged)."""
HDOP_M: Final = 4.0
"""A place is off by about this times its horizontal dilution, m (judged: user range error)."""
TRACK_S: Final = 10.0
"""So often a place is told: at 1.7 mph in a turn of 45 m the way between two of them is a sixth of
a metre off the straight line, s**2 v**2 / (8 r), and a day of eight hours is 2 900 of them."""
SPEED_STEP_MPS: Final = 0.045
"""A tenth of a mile an hour, the step that an angler speaks of (common practice)."""
SPEED_OVER_S: Final = 10.0
"""A speed is the middle of so many seconds: a wheel flickers in waves (judged)."""
WARM_STEP_DEGC: Final = 0.2 / 1.8
WARM_AGAIN_S: Final = 1200.0
"""So often a temperature that stays is told again: a thermometer that is heard is no old reading
(an hour is old, judged)."""
SAME_FISH_M: Final = 1.0
SAME_FISH_S: Final = 20.0
"""Marks as near as this to the last one, and as soon, are the same fish (judged: two casts of the
beam)."""
DEPTH_STEP_M: Final = 0.25
"""Under a foot: a sounding holds until the next."""
MOST_SOURCES: Final = 6
BAUDS: Final = (4800, 9600, 19200, 38400, 57600, 115200)
KEPT: Final = 120


@dataclass(frozen=True, slots=True, kw_only=True)
class Source:
    """Something that speaks, and how far what it says is to be set right.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    kind : {'tcp', 'udp', 'serial', 'log'}
        Asked at an address, listened for on a port, on a cable, or a recorded log played again.
    host : str
        Numeric address in the boat's own network; where a port is listened on, empty.
    port : int
        Its port; 0 for a cable or a log.
    device : str
        Name of the cable's device, such as /dev/ttyUSB0; empty for all others.
    baud : int
        Of the cable, bits/s; NMEA 0183 is 4800, its fast kind 38400.
    pace : float
        How much faster than it was recorded a log is played.
    is_on : bool
        Whether it is listened to.
    transducer_m : float
        How deep the transducer hangs under the surface, m.
    wheel_factor : float
        Speed through water over what its wheel shows, by runs both ways against GPS.
    warm_degc : float
        What its thermometer shows above the truth, by a cup of ice water, K.
    """

    id: str
    name: str
    kind: Literal["tcp", "udp", "serial", "log"]
    port: int = 0
    host: str = ""
    device: str = ""
    baud: int = 4800
    pace: float = 1.0
    is_on: bool = True
    transducer_m: float = 0.0
    wheel_factor: float = 1.0
    warm_degc: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless it can be listened to."""
        require_text("id", self.id, longest=60)
        require_text("name", self.name, longest=60)
        if self.kind in ("tcp", "udp"):
            require_number("port", self.port, low=1024, high=65535)
        elif self.port:
            raise InvalidInputError("port", self.port, "0: a cable or a log has none")
        require_text("host", self.host, longest=60, empty=self.kind != "tcp")
        if self.kind == "udp" and self.host:
            raise InvalidInputError("host", self.host, "empty: what is sent to the port is heard")
        require_text("device", self.device, longest=120, empty=self.kind != "serial")
        if self.device and self.kind != "serial":
            raise InvalidInputError("device", self.device, "empty: only a cable has one")
        if self.baud not in BAUDS:
            raise InvalidInputError("baud", self.baud, f"one of {', '.join(map(str, BAUDS))}")
        require_number("pace", self.pace, low=1.0, high=60.0)
        require_number("transducer_m", self.transducer_m, low=0.0, high=3.0, unit="m")
        require_number("wheel_factor", self.wheel_factor, low=0.5, high=2.0)
        require_number("warm_degc", self.warm_degc, low=-5.0, high=5.0, unit="K")


@dataclass(frozen=True, slots=True, kw_only=True)
class Sources:
    """All that speaks, the one that is believed first first."""

    sources: tuple[Source, ...] = ()

    def check(self) -> None:
        """Raise InvalidInputError if there are too many, or two of one id or on one port."""
        if len(self.sources) > MOST_SOURCES:
            raise InvalidInputError("sources", len(self.sources), f"at most {MOST_SOURCES}")
        for i, source in enumerate(self.sources):
            before = self.sources[:i]
            if source.id in [other.id for other in before]:
                raise InvalidInputError(f"sources[{i}].id", source.id, "an id of its own")
            if _end(source) in [_end(other) for other in before]:
                field = {"serial": "device", "log": "kind"}.get(source.kind, "port")
                raise InvalidInputError(
                    f"sources[{i}].{field}", getattr(source, field), "listened to only once"
                )


def _end(source: Source) -> tuple[str, str, int, str]:
    return source.kind, source.host, source.port, source.device


@dataclass(frozen=True, slots=True, kw_only=True)
class Said:
    """A value as a source said it, in SI.

    Parameters
    ----------
    quantity : Quantity
        Of what.
    value : float
        m/s, m, degrees or degrees Celsius; for a place its horizontal dilution, 0 for none told.
    place : GeoPoint or None
        Where quantity is 'place'.
    below_surface : bool
        Whether a depth counts from the surface already.
    """

    quantity: Quantity
    value: float
    place: GeoPoint | None = None
    below_surface: bool = False


@dataclass(frozen=True, slots=True, kw_only=True)
class Value:
    """What is known of a quantity from a source.

    Parameters
    ----------
    quantity : Quantity
        Of what.
    source_id : str
        From whom.
    value : float
        Set right, in SI.
    place : GeoPoint or None
        Where it is a place.
    age_s : float
        How old, s.
    state : {'used', 'other', 'stale', 'wrong', 'replayed'}
        Believed now; another source is believed before it; too old; beyond what can be; or out of
        a log, which is seen and never recorded as of now.
    """

    quantity: Quantity
    source_id: str
    value: float
    place: GeoPoint | None
    age_s: float
    state: State


@dataclass(slots=True)
class _Heard:
    at_s: float
    said: Said
    is_wrong: bool


class Board:
    """What was heard last of every quantity from every source.

    Parameters
    ----------
    sources : Sources
        Who speaks, in the order in which they are believed.
    """

    def __init__(self, sources: Sources) -> None:
        self._sources = {source.id: source for source in sources.sources}
        self._heard: dict[tuple[Quantity, str], _Heard] = {}

    def hear(self, source_id: str, said: Said, at_s: float) -> None:
        """Take in a value.

        Parameters
        ----------
        source_id : str
            Who said it; a source that is not on the board is not heard.
        said : Said
            What.
        at_s : float
            When it was heard by our own clock, seconds since 1970-01-01 UTC.

        Notes
        -----
        A value that cannot be is told as wrong and leaves the last good one to grow old.
        """
        source = self._sources.get(source_id)
        if source is None:
            return
        said = _set_right(said, source)
        self._heard[said.quantity, source_id] = _Heard(at_s, said, not _can_be(said))

    def values(self, now_s: float) -> tuple[Value, ...]:
        """Return what is known, and who is believed.

        Parameters
        ----------
        now_s : float
            The moment, seconds since 1970-01-01 UTC.

        Returns
        -------
        tuple of Value
            By quantity, each quantity's sources in the order in which they are believed.
        """
        found = []
        for quantity, stale_s in STALE_S.items():
            is_taken = False
            for source_id in self._sources:
                heard = self._heard.get((quantity, source_id))
                if heard is None:
                    continue
                age = max(now_s - heard.at_s, 0.0)
                state: State = "used"
                if heard.is_wrong:
                    state = "wrong"
                elif age > stale_s:
                    state = "stale"
                elif self._sources[source_id].kind == "log":
                    state = "replayed"
                elif is_taken:
                    state = "other"
                is_taken = is_taken or state == "used"
                found.append(Value(
                    quantity=quantity, source_id=source_id, value=heard.said.value,
                    place=heard.said.place, age_s=age, state=state,
                ))
        return tuple(found)


def _set_right(said: Said, source: Source) -> Said:
    value = said.value
    if said.quantity == "depth" and not said.below_surface:
        value += source.transducer_m
    elif said.quantity == "water_speed":
        value *= source.wheel_factor
    elif said.quantity == "water_temperature":
        value -= source.warm_degc
    return Said(
        quantity=said.quantity, value=value, place=said.place, below_surface=said.below_surface
    )


def _can_be(said: Said) -> bool:
    if said.quantity == "place":
        place = said.place
        return place is not None and (place.latitude_deg, place.longitude_deg) != (0.0, 0.0) and (
            abs(place.latitude_deg) <= 85.0 and abs(place.longitude_deg) <= 180.0
        )
    low, high = BOUNDS[said.quantity]
    return math.isfinite(said.value) and low <= said.value <= high


@dataclass(frozen=True, slots=True, kw_only=True)
class News:
    """Something that a trip's record takes.

    Parameters
    ----------
    type : {'position_fixed', 'speed_changed', 'sounded', 'temperature_read', 'mark_seen'}
        Of the event.
    payload : dict
        Its payload.
    """

    type: Literal[
        "position_fixed", "speed_changed", "sounded", "temperature_read", "mark_seen"
    ]
    payload: dict[str, float]


class Thinner:
    """Tells of a stream of values those that say something new.

    Notes
    -----
    A place goes by dead reckoning (``Follower``), and every ten seconds: the track keeps within a
    foot of the log where the log is smooth. A depth holds until it has changed by a quarter of a
    metre, a temperature by 0.2 degrees Fahrenheit or for twenty minutes, a speed by a tenth of a
    mile an hour in the middle of ten seconds. A depth that leaps is heard when the next one says
    so too.
    """

    def __init__(self) -> None:
        self._follower = Follower(renewed_s=TRACK_S)
        self._speeds: deque[tuple[float, float]] = deque(maxlen=KEPT)
        self._told: dict[str, float] = {}
        self._leap: float | None = None
        self._fish: tuple[float, float] | None = None
        self._last_s: dict[Quantity, float] = {}
        self._warm_s = -math.inf

    def take(self, values: tuple[Value, ...], now_s: float) -> tuple[News, ...]:
        """Return what to record.

        Parameters
        ----------
        values : tuple of Value
            What is known now.
        now_s : float
            The moment, seconds since 1970-01-01 UTC.

        Returns
        -------
        tuple of News
            Mostly none.
        """
        used = {value.quantity: value for value in values if value.state == "used"}
        fresh = {
            quantity: value for quantity, value in used.items()
            if now_s - value.age_s > self._last_s.get(quantity, -math.inf)
        }
        for quantity, value in fresh.items():
            self._last_s[quantity] = now_s - value.age_s
        found = [
            self._place(fresh, used, now_s), self._speed(fresh, now_s), self._depth(fresh),
            self._warm(fresh, now_s), self._mark(fresh, now_s),
        ]
        return tuple(news for news in found if news is not None)

    def _place(
        self, fresh: dict[Quantity, Value], used: dict[Quantity, Value], now_s: float
    ) -> News | None:
        told = fresh.get("place")
        if told is None or told.place is None:
            return None
        course, speed = used.get("course"), used.get("ground_speed")
        heard = self._follower.hear(Fix(
            at_s=now_s - told.age_s, place=told.place,
            accuracy_m=HDOP_M * told.value if told.value > 0.0 else FIX_M,
            course_deg=None if course is None else course.value % 360.0,
            speed_mps=None if speed is None else speed.value,
        ))
        if heard is None:
            return None
        fix, course_deg = heard
        return News(type="position_fixed", payload={
            "latitude_deg": fix.place.latitude_deg, "longitude_deg": fix.place.longitude_deg,
            "course_deg": course_deg,
        })

    def _speed(self, fresh: dict[Quantity, Value], now_s: float) -> News | None:
        told = fresh.get("water_speed")
        if told is None:
            return None
        self._speeds.append((now_s, told.value))
        recent = sorted(value for at_s, value in self._speeds if now_s - at_s <= SPEED_OVER_S)
        middle = recent[len(recent) // 2]
        # A boat that stands does not troll: nothing is set by it.
        if len(recent) < 3 or middle < SPEED_STEP_MPS or not self._is_new(
            "speed", middle, SPEED_STEP_MPS
        ):
            return None
        return News(type="speed_changed", payload={"speed_mps": round(middle, 3)})

    def _depth(self, fresh: dict[Quantity, Value]) -> News | None:
        told = fresh.get("depth")
        if told is None:
            return None
        before = self._told.get("depth")
        leap = max(3.0, 0.3 * told.value)
        if before is not None and abs(told.value - before) > leap:
            again = self._leap is not None and abs(told.value - self._leap) <= leap
            self._leap = told.value
            if not again:
                return None
        self._leap = None
        if not self._is_new("depth", told.value, DEPTH_STEP_M):
            return None
        return News(type="sounded", payload={"bottom_m": round(told.value, 2)})

    def _warm(self, fresh: dict[Quantity, Value], now_s: float) -> News | None:
        told = fresh.get("water_temperature")
        if told is None or not (
            self._is_new("warm", told.value, WARM_STEP_DEGC)
            or now_s - self._warm_s >= WARM_AGAIN_S
        ):
            return None
        self._warm_s = now_s
        return News(type="temperature_read", payload={
            "temperature_degc": round(told.value, 2), "depth_m": 0.0
        })

    def _mark(self, fresh: dict[Quantity, Value], now_s: float) -> News | None:
        told = fresh.get("mark")
        if told is None:
            return None
        before, self._fish = self._fish, (now_s, told.value)
        if before is not None and now_s - before[0] <= SAME_FISH_S and (
            abs(told.value - before[1]) <= SAME_FISH_M
        ):
            return None
        return News(type="mark_seen", payload={"depth_m": round(told.value, 2)})

    def _is_new(self, what: str, value: float, step: float) -> bool:
        before = self._told.get(what)
        if before is not None and abs(value - before) < step:
            return False
        self._told[what] = value
        return True


def wheel_factor(
    *, first_ground_mps: float, first_wheel_mps: float, second_ground_mps: float,
    second_wheel_mps: float,
) -> float:
    """Return how much faster the water passes than a wheel shows, from runs both ways.

    Parameters
    ----------
    first_ground_mps, second_ground_mps : float
        Speed over ground there and back on one line, m/s.
    first_wheel_mps, second_wheel_mps : float
        What the wheel showed meanwhile, m/s.

    Returns
    -------
    float
        Speed through water over the wheel's.

    Raises
    ------
    InvalidInputError
        If a speed is none, or the factor is beyond what a wheel can be off.

    Notes
    -----
    A steady current along the line adds as much one way as it takes the other: it drops out of the
    sum where the runs are equally long in time (common practice: runs both ways).

    References
    ----------
    .. [1] ITTC (2017). Recommended Procedure 7.5-04-01-01.1, Preparation, Conduct and Analysis of
       Speed/Power Trials: double runs.
    """
    named = {
        "first_ground_mps": first_ground_mps, "first_wheel_mps": first_wheel_mps,
        "second_ground_mps": second_ground_mps, "second_wheel_mps": second_wheel_mps,
    }
    for name, value in named.items():
        require_number(name, value, above=0.0, high=15.0, unit="m/s")
    factor = (first_ground_mps + second_ground_mps) / (first_wheel_mps + second_wheel_mps)
    return require_number("wheel_factor", factor, low=0.5, high=2.0)



LEAST_RUN: Final = 20
"""Samples of one run: a boat's wander and a wheel's flicker have passed (judged)."""
OPPOSITE_DEG: Final = 150.0
"""Runs whose courses lie less apart are not there and back (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class RunSample:
    """What GPS and wheel said at one moment of a run.

    Parameters
    ----------
    ground_mps, wheel_mps : float
        Speed over ground, and by the wheel, m/s.
    course_deg : float
        Course over ground, degrees from north.
    """

    ground_mps: float
    wheel_mps: float
    course_deg: float

    def check(self) -> None:
        """Raise InvalidInputError unless it can be."""
        require_number("ground_mps", self.ground_mps, low=0.0, high=15.0, unit="m/s")
        require_number("wheel_mps", self.wheel_mps, low=0.0, high=15.0, unit="m/s")
        require_number("course_deg", self.course_deg, low=0.0, high=360.0, unit="deg")


@dataclass(frozen=True, slots=True, kw_only=True)
class WheelRuns:
    """A run there and one back on one line at one throttle.

    Parameters
    ----------
    there, back : tuple of RunSample
        As they were heard.
    present : float
        Factor by which the wheel's samples have been set right already.
    """

    there: tuple[RunSample, ...]
    back: tuple[RunSample, ...]
    present: float = 1.0

    def check(self) -> None:
        """Raise InvalidInputError if a run is too short, or they are not there and back."""
        require_number("present", self.present, low=0.5, high=2.0)
        for name, run in (("there", self.there), ("back", self.back)):
            if not LEAST_RUN <= len(run) <= 10_000:
                raise InvalidInputError(name, len(run), f"at least {LEAST_RUN} samples: run longer")
        apart = abs((_mean_course(self.there) - _mean_course(self.back) + 180.0) % 360.0 - 180.0)
        if apart < OPPOSITE_DEG:
            raise InvalidInputError(
                "back", f"{apart:.0f} degrees off the first run", "the same line the other way"
            )


def _mean_course(run: tuple[RunSample, ...]) -> float:
    north = sum(math.cos(math.radians(one.course_deg)) for one in run)
    east = sum(math.sin(math.radians(one.course_deg)) for one in run)
    return math.degrees(math.atan2(east, north))


def wheel_by_runs(runs: WheelRuns) -> float:
    """Return a wheel's factor from runs there and back, as they were heard.

    Parameters
    ----------
    runs : WheelRuns
        Speeds in m/s.

    Returns
    -------
    float
        Speed through water over what the bare wheel shows.

    Raises
    ------
    InvalidInputError
        If the wheel stood, or the factor is beyond what a wheel can be off.

    References
    ----------
    .. [1] ITTC (2017). Recommended Procedure 7.5-04-01-01.1: double runs, as in `wheel_factor`.
    """
    def mean(run: tuple[RunSample, ...], name: str) -> float:
        return math.fsum(getattr(one, name) for one in run) / len(run)

    found = wheel_factor(
        first_ground_mps=mean(runs.there, "ground_mps"),
        first_wheel_mps=mean(runs.there, "wheel_mps"),
        second_ground_mps=mean(runs.back, "ground_mps"),
        second_wheel_mps=mean(runs.back, "wheel_mps"),
    )
    return require_number("wheel_factor", found * runs.present, low=0.5, high=2.0)
