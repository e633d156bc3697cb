"""Closed water and hazards against the boat's place: where it is, where it heads, where it was."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final, Literal

from ..boat.reckoning import place_doubt
from ..chart.features import Feature, beyond_m, may_reach
from ..chart.grid import GeoPoint, moved
from ..record.state import TripState
from .now import Now
from .track import boat_place, ground_speed_mps

WITHIN_S: Final = 300.0
"""Beyond five minutes nobody turns away yet (judged)."""
FARTHEST_M: Final = 400.0
STEP_M: Final = 8.0
APART_S: Final = 600.0
"""Places so far apart in time say nothing of where the boat was between them (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class KeepOut:
    """Something that the boat is in or comes near.

    Parameters
    ----------
    feature : Feature
        What, by whose rule, read where and when.
    state : {'inside', 'may_be_inside', 'ahead'}
        Whether the boat is in it, may be by all that its place is in doubt, or heads for it.
    in_s, in_m : float
        Until it may be in it on this course, s and m; 0 where it may be already.
    beyond_m : float
        From the reckoned place to the edge, m; negative within.
    place_doubt_m : float
        Radius of the circle that holds the boat four times in five, m.
    """

    feature: Feature
    state: Literal["inside", "may_be_inside", "ahead"]
    in_s: float
    in_m: float
    beyond_m: float
    place_doubt_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class LinesInside:
    """A stretch of time with lines out in closed water, by the places that were noted.

    Parameters
    ----------
    name, rule : str
        Of the water, and what closes it, as its user read it.
    from_s, to_s : float
        First and last place noted inside, seconds since 1970-01-01 UTC.
    deepest_in_m : float
        How far inside the farthest of them lay, m.
    """

    name: str
    rule: str
    from_s: float
    to_s: float
    deepest_in_m: float


def keep_out_now(now: Now, now_s: float) -> tuple[KeepOut, ...]:
    """Return what the boat is in or comes near, the nearest first.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of KeepOut
        Nothing without a place, or with one too old to reckon on from.

    Notes
    -----
    The boat holds its course and speed for five minutes or 400 m. It is taken as near as the doubt
    of its place allows; the lures follow in its wake and may be in it after the boat has left.
    """
    ground = ground_speed_mps(now)
    place = boat_place(now.state, now_s, ground)
    if place is None or now.state.fix is None or not now.trip.keep_out:
        return ()
    fixed_at, fix = now.state.fix
    doubt = place_doubt(age_s=now_s - fixed_at, ground_mps=ground).radius_m
    reach = min(FARTHEST_M, WITHIN_S * ground)
    found = []
    for feature in now.trip.keep_out:
        if not may_reach(feature, place, reach + doubt):
            continue
        beyond = beyond_m(feature, place)
        far = _until_near(feature, place, fix.course_deg, reach, doubt)
        if far is None:
            continue
        found.append(KeepOut(
            feature=feature,
            state="ahead" if far > 0.0 else "may_be_inside" if beyond > 0.0 else "inside",
            in_s=far / ground if far > 0.0 else 0.0, in_m=far, beyond_m=beyond,
            place_doubt_m=doubt,
        ))
    return tuple(sorted(found, key=lambda one: (one.in_m, one.beyond_m)))


def _until_near(
    feature: Feature, place: GeoPoint, course_deg: float, reach_m: float, doubt_m: float
) -> float | None:
    """Way along the course, m, to where the boat may be in it; None where it does not come so near.

    A step is as long as what still lies between, so that nothing wider than 8 m is stepped over.
    """
    gone = 0.0
    while gone <= reach_m:
        there = moved(place, course_deg=course_deg, distance_m=gone)
        left = beyond_m(feature, there) - doubt_m
        if left <= 0.0:
            return gone
        gone += max(left, STEP_M)
    return None


def lines_inside(now: Now) -> tuple[LinesInside, ...]:
    """Return when lines were out in closed water, by the places that were noted.

    Parameters
    ----------
    now : Now
        The trip as it stands.

    Returns
    -------
    tuple of LinesInside
        In order of time; what lies between two places ten minutes apart is not guessed.

    Notes
    -----
    A record for its user and no proof: a place by satellite is off by metres, and lures trail the
    boat.
    """
    closed = [feature for feature in now.trip.keep_out if feature.kind != "hazard"]
    spells = [spell for feature in closed for spell in _spells(now.state, feature)]
    return tuple(sorted(spells, key=lambda spell: spell.from_s))


def _spells(state: TripState, feature: Feature) -> Iterator[LinesInside]:
    begun_s = last_s = None
    deepest = 0.0
    for at_s, fix in state.fixes:
        place = GeoPoint(latitude_deg=fix.latitude_deg, longitude_deg=fix.longitude_deg)
        beyond = beyond_m(feature, place) if may_reach(feature, place, 0.0) else 1.0
        inside = beyond <= 0.0 and _lines_out(state, at_s)
        if last_s is not None and begun_s is not None and (
            not inside or at_s - last_s > APART_S
        ):
            yield _spell(feature, begun_s, last_s, deepest)
            begun_s, last_s, deepest = None, None, 0.0
        if inside:
            begun_s, last_s = at_s if begun_s is None else begun_s, at_s
            deepest = max(deepest, -beyond)
    if begun_s is not None and last_s is not None:
        yield _spell(feature, begun_s, last_s, deepest)


def _spell(feature: Feature, from_s: float, to_s: float, deepest_m: float) -> LinesInside:
    return LinesInside(
        name=feature.name, rule=feature.rule, from_s=from_s, to_s=to_s, deepest_in_m=deepest_m
    )


def _lines_out(state: TripState, at_s: float) -> bool:
    return any(
        stint.start_s <= at_s and (stint.end_s is None or at_s <= stint.end_s)
        for stint in state.stints
    )
