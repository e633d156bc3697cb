"""Places farther off where fish were met today, and whether there is a clear way there."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ..advice.situation import Spot
from ..advice.turning import AHEAD_MIN, FARTHEST_MIN, THERE_MIN
from ..boat.current import ground_speed_on_course
from ..chart.features import beyond_m, may_reach
from ..chart.grid import GeoPoint, moved
from ..evidence.ground import HIT_MARKS, REACH_M, Ground
from .now import Now
from .track import ground_speed_mps, track_at

MINUTE_S: Final = 60.0
LONGEST_GAP_S: Final = 180.0
"""Between places further apart in time nobody knows how the boat went (judged)."""
MOST_PLACES: Final = 2
LOOKED_AT: Final = 24
BERTH_M: Final = 40.0
"""So far a way stays from closed water and hazards (judged)."""
BOAT_M: Final = 2.0
"""Less water is no way for a boat, whatever hangs below it (judged)."""
SAMPLE_M: Final = 25.0
SAMPLE_MIN: Final = 3
THERE_EACH_MIN: Final = 2
"""The way there is looked at each so many metres for the bottom, each so many minutes for fish; the
place itself more closely."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Passed:
    """A minute of the boat's track, newest last.

    Parameters
    ----------
    at_s : float
        When, seconds since 1970-01-01 UTC.
    place : GeoPoint
        Where.
    flat : (float, float)
        The same from where the boat is now, east and north, m.
    marks, hits : int
        What was met in it.
    """

    at_s: float
    place: GeoPoint
    flat: tuple[float, float]
    marks: int
    hits: int


@dataclass(frozen=True, slots=True)
class _Way:
    toward_deg: float
    places: tuple[tuple[float, float], ...]
    shallowest_m: float | None


def spots(
    now: Now, here: GeoPoint, track: Sequence[Passed], ground: Ground, now_s: float
) -> tuple[Spot, ...]:
    """Return where else fish were met, as far as a clear way there is known.

    Parameters
    ----------
    now : Now
        The trip.
    here : GeoPoint
        Where the boat is.
    track : sequence of Passed
        Where it has been, newest last.
    ground : Ground
        What was met.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of Spot
        Of two places at most, those that hold most, each by the ways that are clear: whether
        the lures that are out go clear too is for who goes.

    Notes
    -----
    Straight over the chart, or back along the boat's own track, never through closed water or a
    hazard. What lies within a quarter of an hour behind is the way back's.
    """
    met = [
        i for i, passed in enumerate(track)
        if passed.marks + passed.hits and now_s - passed.at_s > AHEAD_MIN * MINUTE_S
    ]
    # Where most was met, the latest first: a day has hundreds of minutes with a mark.
    met = sorted(met, key=lambda i: (-track[i].marks - HIT_MARKS * track[i].hits, -i))[:LOOKED_AT]
    held = ground.holds(at_min=now_s / MINUTE_S, places=[track[i].flat for i in met])
    bed = track_at(now, now_s, ground_speed_mps(now))
    level_m = 0.0 if bed is None else bed.level_m
    found: list[Spot] = []
    taken: list[tuple[float, float]] = []
    for _, index in sorted(zip(held, met, strict=True), reverse=True):
        flat = track[index].flat
        if any(math.dist(flat, other) < 2.0 * REACH_M for other in taken):
            continue
        asked = _straight(now, here, track[index], level_m), _retraced(now, track, index)
        ways = [way for way in asked if way is not None]
        if ways:
            found += _spots_by(track, index, ways, ground, now_s)
            taken.append(flat)
        if len(taken) == MOST_PLACES:
            break
    return tuple(found)


def _spots_by(
    track: Sequence[Passed], index: int, ways: Sequence[_Way], ground: Ground, now_s: float
) -> list[Spot]:
    """A place, once by each way there."""
    around = [
        passed for passed in track
        if abs(passed.at_s - track[index].at_s) <= 0.5 * THERE_MIN * MINUTE_S
    ]
    looks = THERE_MIN // THERE_EACH_MIN
    there = [around[i * (len(around) - 1) // (looks - 1)].flat for i in range(looks)]
    sampled = [way.places[::SAMPLE_MIN] for way in ways]
    held = ground.holds(
        at_min=now_s / MINUTE_S, places=[*there, *(place for places in sampled for place in places)]
    )
    found, begun = [], looks
    for way, places in zip(ways, sampled, strict=True):
        on_it = held[begun:begun + len(places)]
        begun += len(places)
        found.append(Spot(
            toward_deg=way.toward_deg,
            way=tuple(on_it[i // SAMPLE_MIN] for i in range(len(way.places))),
            there=tuple(held[i // THERE_EACH_MIN] for i in range(THERE_MIN)),
            shallowest_m=way.shallowest_m,
            since_min=(now_s - track[index].at_s) / MINUTE_S,
            marks=sum(passed.marks for passed in around),
            hits=sum(passed.hits for passed in around),
        ))
    return found


def _straight(now: Now, here: GeoPoint, to: Passed, level_m: float) -> _Way | None:
    chart = now.trip.chart
    if chart is None:
        return None
    east, north = to.flat
    course, distance = math.degrees(math.atan2(east, north)) % 360.0, math.hypot(east, north)
    speed = ground_speed_on_course(
        through_water_mps=now.speed_mps, course_deg=course, current=now.state.current
    )
    if speed <= 0.0 or not _is_apart(distance / speed):
        return None
    steps = max(math.ceil(distance / SAMPLE_M), 1)
    places = [
        moved(here, course_deg=course, distance_m=distance * i / steps) for i in range(steps + 1)
    ]
    known = [
        depth + level_m for depth in map(chart.depth_m, places) if depth is not None
    ]
    if len(known) < len(places) or min(known) < BOAT_M or not _is_clear(now, places):
        return None
    minutes = max(round(distance / speed / MINUTE_S), 1)
    return _Way(
        course,
        tuple((east * i / minutes, north * i / minutes) for i in range(1, minutes + 1)),
        min(known),
    )


def _retraced(now: Now, track: Sequence[Passed], index: int) -> _Way | None:
    """Back along the track, where no gap leaves it unknown."""
    if not _is_apart(track[-1].at_s - track[index].at_s):
        return None
    passed = list(reversed(track[index:]))
    if any(
        before.at_s - after.at_s > LONGEST_GAP_S for before, after in pairwise(passed)
    ):
        return None
    if not _is_clear(now, [one.place for one in passed]):
        return None
    east, north = passed[min(AHEAD_MIN, len(passed) - 1)].flat
    return _Way(
        math.degrees(math.atan2(east, north)) % 360.0,
        tuple(one.flat for one in passed), None,
    )


def _is_apart(time_s: float) -> bool:
    """Whether a way is one: not at hand, and not too long."""
    return MINUTE_S <= time_s <= FARTHEST_MIN * MINUTE_S


def _is_clear(now: Now, places: Sequence[GeoPoint]) -> bool:
    return not any(
        may_reach(feature, place, BERTH_M) and beyond_m(feature, place) < BERTH_M
        for feature in now.trip.keep_out for place in places
    )
