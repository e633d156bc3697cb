"""Back through it: which way round, where to begin, and when each lure crosses the place."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ...boat.current import ground_speed_on_course, vector, water_heading_deg
from ...boat.reckoning import place_doubt
from ...boat.way_back import Side, WayBack, ways_back_in_current
from ...chart.grid import GeoPoint, moved, offset_m
from ...errors import InvalidInputError, NoSolutionError
from ...record.payloads import PositionFixed
from ...record.state import TripState
from ...trip.now import Now
from ...trip.track import boat_place, ground_speed_mps
from ..fish.rods import rod_views
from ..fish.view import RodView
from .asked import tightest

SPARE_M: Final = 10.0
"""Beyond the longest line, so that all run straight again before the place (judged)."""
MOST_TARGETS: Final = 6
SHALLOW_M: Final = 6.0
"""Over fish no deeper a boat is not driven: it passes beside them (common practice)."""
BESIDE_M: Final = 12.0
LEAST_GROUND_MPS: Final = 0.1
"""Slower than this over ground nobody comes back over anything."""
OLD_S: Final = 3.0 * 3600.0
"""Places older than this are Review's."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Target:
    """A place to go back through.

    Parameters
    ----------
    id : str
        What it is known by: an event, or a bite's rod and time.
    name : str
        In words.
    at_s : float
        When it was found, seconds since 1970-01-01 UTC.
    place : GeoPoint
        Where the lure was, as it was reckoned.
    course_deg : float
        The boat's course then, degrees from north.
    depth_m : float or None
        How deep, m, where it is known.
    """

    id: str
    name: str
    at_s: float
    place: GeoPoint
    course_deg: float
    depth_m: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Crossing:
    """When a rod's lure crosses the place: seconds from now."""

    rod_id: str
    in_s: float


@dataclass(frozen=True, slots=True, kw_only=True)
class BackView:
    """The way back through a place.

    Parameters
    ----------
    target : Target
        The place.
    away_m : float
        How far the boat is from it, m.
    doubt_m : float
        Radius of the circle that holds boat and place four times in five, m.
    turn : {'port', 'starboard'}
        To which side the first turn goes.
    radius_m : float
        Its radius, m: no tighter than the lines that are out may turn.
    straight_deg, straight_m : float
        Heading of the straight between the turns, degrees from north, and its length, m.
    second : {'port', 'starboard'}
        To which side the second turn goes.
    arrive_deg : float
        Heading over the place, degrees from north.
    beside_m : float
        How far beside the place the boat goes, m: over shallow fish it is not driven.
    in_s : float
        When the boat is there, seconds from now.
    crossings : tuple of Crossing
        When each lure is, the first first.
    points : tuple of (float, float)
        The way, east and north of the boat, m.
    place : tuple of (float, float)
        The place, east and north of the boat, m.
    """

    target: Target
    away_m: float
    doubt_m: float
    turn: Side
    radius_m: float
    straight_deg: float
    straight_m: float
    second: Side
    arrive_deg: float
    beside_m: float
    in_s: float
    crossings: tuple[Crossing, ...]
    points: tuple[tuple[float, float], ...]
    place: tuple[float, float]


@dataclass(frozen=True, slots=True, kw_only=True)
class BackOffer:
    """The places there are, and the way back through one of them.

    Parameters
    ----------
    targets : tuple of Target
        The latest first.
    way : BackView or None
        To the one that was asked for; None where no place is known, or the boat's own is not.
    why_not : str
        What is lacking then.
    """

    targets: tuple[Target, ...]
    way: BackView | None
    why_not: str = ""


def back_through(now: Now, *, now_s: float, target_id: str | None = None) -> BackOffer:
    """Return the places of the day, and the way back through one.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        Seconds since 1970-01-01 UTC.
    target_id : str, optional
        Which place; the latest when left out.

    Returns
    -------
    BackOffer

    Raises
    ------
    InvalidInputError
        If there is no such place.

    Notes
    -----
    Back on the reciprocal of the course that found it, over the place on a straight as long as the
    longest line, so that every lure crosses it as it was found. In a current the boat is carried
    all the way (`ways_back_in_current`), holds its course over the place by heading up, and goes so
    far up-current that the middle of its lures comes over it.
    """
    found = targets(now, now_s)
    if not found:
        return BackOffer(targets=(), way=None, why_not="No bite or place of today was fixed: note "
                         "the boat's place and course, or let the phone say it.")
    target = found[0] if target_id is None else next((t for t in found if t.id == target_id), None)
    if target is None:
        raise InvalidInputError("target_id", target_id, "one of the places that are offered")
    ground = ground_speed_mps(now)
    here = boat_place(now.state, now_s, ground)
    if here is None or now.state.fix is None:
        return BackOffer(targets=found, way=None, why_not="Where the boat is, is not known any "
                         "more: note its place and course.")
    rods = [rod for rod in rod_views(now) if rod.line is not None]
    over = _over(now, rods, target)
    if over is None:
        return BackOffer(targets=found, way=None, why_not="The current is too fast to come back "
                         "over it on the course that found it: come at it another way.")
    way = _way(now, over, target, here, now_s)
    if way is None:
        return BackOffer(targets=found, way=None, why_not="No turn is safe with these lines out: "
                         "shorten them, or bring the outer ones in.")
    place = offset_m(here, target.place)
    age = now_s - now.state.fix[0]
    then = place_doubt(age_s=0.0, ground_mps=ground).radius_m
    last, arrive = way.points[-1], math.radians(over.course_deg)
    end = (last[0] + over.lead_m * math.sin(arrive), last[1] + over.lead_m * math.cos(arrive))
    in_s = way.length_m / now.speed_mps + over.lead_m / over.ground_mps
    return BackOffer(targets=found, way=BackView(
        target=target, away_m=math.hypot(*place),
        doubt_m=math.hypot(place_doubt(age_s=age, ground_mps=ground).radius_m, then),
        turn=way.first, radius_m=way.first_radius_m, straight_deg=way.heading_deg,
        straight_m=way.straight_m, second=way.second,
        arrive_deg=over.course_deg, beside_m=over.beside_m, in_s=in_s,
        crossings=tuple(sorted(
            (
                Crossing(rod_id=rod.id, in_s=in_s + _astern_m(rod) * over.along / over.ground_mps)
                for rod in rods
            ),
            key=lambda crossing: crossing.in_s,
        )),
        points=(*way.points, end), place=place,
    ))


@dataclass(frozen=True, slots=True, kw_only=True)
class _Over:
    """How the boat comes over the place.

    Its course over ground, degrees; its heading through the water there, degrees; its speed over
    ground, m/s; how much of a line lies along the course; the straight before the place, m; how far
    to starboard of the place the boat itself goes, m, and how much of that is for the fish's sake.
    """

    course_deg: float
    heading_deg: float
    ground_mps: float
    along: float
    lead_m: float
    starboard_m: float
    beside_m: float


def _over(now: Now, rods: Sequence[RodView], target: Target) -> _Over | None:
    """Back on the reciprocal of the course that found it; None where the current forbids it."""
    course = (target.course_deg + 180.0) % 360.0
    current = now.state.current
    heading = water_heading_deg(
        through_water_mps=now.speed_mps, course_deg=course, current=current
    )
    ground = ground_speed_on_course(
        through_water_mps=now.speed_mps, course_deg=course, current=current
    )
    if heading is None or ground < LEAST_GROUND_MPS:
        return None
    crab = math.radians(heading - course)
    astern = [_astern_m(rod) for rod in rods]
    beside = BESIDE_M if target.depth_m is not None and target.depth_m < SHALLOW_M else 0.0
    # Lines stream against the motion through the water: the boat goes so far up-current that the
    # middle of its lures comes over the place.
    middle = 0.5 * (min(astern) + max(astern)) if astern else 0.0
    return _Over(
        course_deg=course, heading_deg=heading, ground_mps=ground, along=math.cos(crab),
        lead_m=SPARE_M + max(astern, default=0.0) * math.cos(crab),
        starboard_m=beside + middle * math.sin(crab), beside_m=beside,
    )


def _astern_m(rod: RodView) -> float:
    """How far behind the boat a rod's lure is, m."""
    return rod.aft_m + (0.0 if rod.line is None else rod.line.trail_m)


def _way(
    now: Now, over: _Over, target: Target, here: GeoPoint, now_s: float
) -> WayBack | None:
    """The shortest way that keeps the boat off the fish until it comes back over them."""
    try:
        turns = tightest(now, now_s=now_s)
    except NoSolutionError:
        return None
    start = moved(
        moved(target.place, course_deg=over.course_deg + 90.0, distance_m=over.starboard_m),
        course_deg=over.course_deg, distance_m=-over.lead_m,
    )
    east, north = offset_m(here, start)
    fix, current = now.state.fix, now.state.current
    assert fix is not None
    heading = water_heading_deg(
        through_water_mps=now.speed_mps, course_deg=fix[1].course_deg, current=current
    )
    flow_north, flow_east = (
        (0.0, 0.0) if current is None else vector(current.speed_mps, current.toward_deg)
    )
    ways = ways_back_in_current(
        east_m=east, north_m=north,
        # Carried back by the current: it points as it was told to go.
        heading_deg=fix[1].course_deg if heading is None else heading,
        arrive_deg=over.heading_deg, port_m=turns.port.radius_m,
        starboard_m=turns.starboard.radius_m, speed_mps=now.speed_mps,
        flow_mps=(flow_east, flow_north),
    )
    fish = offset_m(here, target.place)
    clear = [
        way for way in ways if _nearest_m(way.points, fish) >= min(2.0 * BESIDE_M, over.lead_m)
    ]
    return next(iter(clear or ways), None)


def _nearest_m(points: Sequence[tuple[float, float]], place: tuple[float, float]) -> float:
    """How near a way comes to a place, its start left out: the boat may be over it now."""
    nearest = math.inf
    for (x0, y0), (x1, y1) in pairwise(points[2:]):
        dx, dy = x1 - x0, y1 - y0
        long = dx * dx + dy * dy
        share = 0.0 if long == 0.0 else ((place[0] - x0) * dx + (place[1] - y0) * dy) / long
        share = min(max(share, 0.0), 1.0)
        nearest = min(nearest, math.hypot(x0 + share * dx - place[0], y0 + share * dy - place[1]))
    return nearest


def targets(now: Now, now_s: float) -> tuple[Target, ...]:
    """Return the places of the last hours: where lures were bitten, and what was noted as a place.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        Seconds since 1970-01-01 UTC.

    Returns
    -------
    tuple of Target
        The latest first; a bite counts where the boat's place was known then.
    """
    state, ground = now.state, ground_speed_mps(now)
    found: list[Target] = []
    views = {rod.id: rod for rod in rod_views(now)}
    for at_s, rod_id, kind in state.bites:
        fix = _fix_before(state, at_s)
        if kind != "hit" or now_s - at_s > OLD_S or fix is None:
            continue
        fixed_s, told = fix
        if not place_doubt(age_s=at_s - fixed_s, ground_mps=ground).is_known:
            continue
        rod = views.get(rod_id)
        line = None if rod is None else rod.line
        behind = 0.0 if rod is None or line is None else rod.aft_m + line.trail_m
        place = moved(
            GeoPoint(latitude_deg=told.latitude_deg, longitude_deg=told.longitude_deg),
            course_deg=told.course_deg, distance_m=ground * (at_s - fixed_s) - behind,
        )
        found.append(Target(
            id=f"{rod_id}:{at_s:.3f}", name=f"Bite on {rod_id if rod is None else rod.name}",
            at_s=at_s, place=place, course_deg=told.course_deg,
            depth_m=None if line is None else line.depth_m,
        ))
    for note in state.notes:
        fix = _fix_before(state, note.at_s)
        if note.kind == "waypoint" and note.place is not None and now_s - note.at_s <= OLD_S:
            found.append(Target(
                id=note.event_id, name=note.text or "Place", at_s=note.at_s,
                place=GeoPoint(latitude_deg=note.place[0], longitude_deg=note.place[1]),
                course_deg=0.0 if fix is None else fix[1].course_deg, depth_m=None,
            ))
    return tuple(sorted(found, key=lambda target: -target.at_s)[:MOST_TARGETS])


def _fix_before(state: TripState, at_s: float) -> tuple[float, PositionFixed] | None:
    return next((fix for fix in reversed(state.fixes) if fix[0] <= at_s), None)
