"""What was sounded on a trip, where that is known: for the water's own chart."""

from __future__ import annotations

from bisect import bisect_right
from dataclasses import dataclass

from ..boat.reckoning import place_doubt
from ..chart.grid import GeoPoint, moved
from .fold import SAME_PLACE_S
from .state import TripState


@dataclass(frozen=True, slots=True, kw_only=True)
class DaySounding:
    """A depth that was sounded, and where.

    Parameters
    ----------
    at_s : float
        When, seconds since 1970-01-01 UTC.
    place : GeoPoint
        Where, reckoned from the nearest fix.
    bottom_m : float
        Depth of the bottom, m.
    doubt_m : float
        Radius of the circle that holds the place four times in five, m.
    """

    at_s: float
    place: GeoPoint
    bottom_m: float
    doubt_m: float


def day_soundings(state: TripState) -> tuple[DaySounding, ...]:
    """Return the soundings of a trip whose place is known.

    Parameters
    ----------
    state : TripState
        The trip.

    Returns
    -------
    tuple of DaySounding
        In order of time: each reckoned on from the last fix within two minutes before it, else back
        from the first within two minutes after; without either it has no place and is left out.

    Notes
    -----
    Dead reckoning along the fix's course, at the speed through the water of that moment: current
    and wind are in the circle's radius.
    """
    times = [at_s for at_s, _ in state.fixes]
    found = []
    for at_s, bottom_m, speed_mps in state.soundings:
        after = bisect_right(times, at_s)
        near = next(
            (state.fixes[i] for i in (after - 1, after)
             if 0 <= i < len(times) and abs(at_s - times[i]) <= SAME_PLACE_S),
            None,
        )
        if near is None:
            continue
        age, fix = at_s - near[0], near[1]
        origin = GeoPoint(latitude_deg=fix.latitude_deg, longitude_deg=fix.longitude_deg)
        found.append(DaySounding(
            at_s=at_s, bottom_m=bottom_m,
            place=moved(origin, course_deg=fix.course_deg, distance_m=speed_mps * age),
            doubt_m=place_doubt(age_s=age, ground_mps=speed_mps).radius_m,
        ))
    return tuple(found)
