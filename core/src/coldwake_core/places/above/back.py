"""Back through it: which way round, where to begin, and when each lure crosses the place."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from ...boat.reckoning import place_doubt
from ...boat.way_back import Side, WayBack, ways_back
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
    longest line, so that every lure crosses it as it was found. Speeds are those over the ground on
    the course now; a current bends the way.
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
    way, beside, arrive = _way(now, rods, target, here, now_s)
    if way is None:
        return BackOffer(targets=found, way=None, why_not="No turn is safe with these lines out: "
                         "shorten them, or bring the outer ones in.")
    lead = _lead_m(rods)
    place = offset_m(here, target.place)
    age = now_s - now.state.fix[0]
    then = place_doubt(age_s=0.0, ground_mps=ground).radius_m
    last = way.points[-1]
    end = (
        last[0] + lead * math.sin(math.radians(arrive)),
        last[1] + lead * math.cos(math.radians(arrive)),
    )
    length = way.length_m + lead
    return BackOffer(targets=found, way=BackView(
        target=target, away_m=math.hypot(*place),
        doubt_m=math.hypot(place_doubt(age_s=age, ground_mps=ground).radius_m, then),
        turn=way.first, radius_m=way.first_radius_m, straight_deg=way.heading_deg,
        straight_m=way.straight_m, second=way.second,
        arrive_deg=arrive, beside_m=beside, in_s=length / ground,
        crossings=tuple(sorted(
            (
                Crossing(rod_id=rod.id, in_s=(length + rod.aft_m + rod.line.trail_m) / ground)
                for rod in rods if rod.line is not None
            ),
            key=lambda crossing: crossing.in_s,
        )),
        points=(*way.points, end), place=place,
    ))


def _lead_m(rods: Sequence[RodView]) -> float:
    return SPARE_M + max(
        (rod.aft_m + rod.line.trail_m for rod in rods if rod.line is not None), default=0.0
    )


def _way(
    now: Now, rods: Sequence[RodView], target: Target, here: GeoPoint, now_s: float
) -> tuple[WayBack | None, float, float]:
    """The shortest way that keeps the boat off the fish until it comes back over them."""
    arrive = (target.course_deg + 180.0) % 360.0
    beside = BESIDE_M if target.depth_m is not None and target.depth_m < SHALLOW_M else 0.0
    try:
        turns = tightest(now, now_s=now_s)
    except NoSolutionError:
        return None, beside, arrive
    lead, goal = _lead_m(rods), target.place
    if beside:
        goal = moved(goal, course_deg=arrive + 90.0, distance_m=beside)
    start = moved(goal, course_deg=arrive, distance_m=-lead)
    east, north = offset_m(here, start)
    fix = now.state.fix
    assert fix is not None
    ways = ways_back(
        east_m=east, north_m=north, heading_deg=fix[1].course_deg, arrive_deg=arrive,
        port_m=turns.port.radius_m, starboard_m=turns.starboard.radius_m,
    )
    fish = offset_m(here, target.place)
    clear = [way for way in ways if _nearest_m(way.points, fish) >= min(2.0 * BESIDE_M, lead)]
    return next(iter(clear or ways), None), beside, arrive


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
