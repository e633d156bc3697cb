"""Where the boat was when something happened, from the places that were noted."""

from __future__ import annotations

from bisect import bisect_right

from ..boat.reckoning import place_doubt
from ..chart.grid import GeoPoint, moved
from .state import TripState


def place_at(
    state: TripState, at_s: float, *, speed_mps: float, within_s: float
) -> tuple[GeoPoint, float] | None:
    """Return where the boat was at a moment of the record.

    Parameters
    ----------
    state : TripState
        The trip.
    at_s : float
        The moment, seconds since 1970-01-01 UTC.
    speed_mps : float
        Speed to reckon with, m/s.
    within_s : float
        How far off in time a place may be, s.

    Returns
    -------
    (GeoPoint, float) or None
        The place, and the radius of the circle that holds it four times in five, m: reckoned on
        from the last fix before, else back from the first after; None without either.

    Notes
    -----
    Dead reckoning along the fix's course, at the speed through the water of that moment: current
    and wind are in the circle's radius.
    """
    after = bisect_right(state.fixes, at_s, key=lambda fix: fix[0])
    near = next(
        (state.fixes[i] for i in (after - 1, after)
         if 0 <= i < len(state.fixes) and abs(at_s - state.fixes[i][0]) <= within_s),
        None,
    )
    if near is None:
        return None
    age, fix = at_s - near[0], near[1]
    origin = GeoPoint(latitude_deg=fix.latitude_deg, longitude_deg=fix.longitude_deg)
    there = moved(origin, course_deg=fix.course_deg, distance_m=speed_mps * age)
    return there, place_doubt(age_s=age, ground_mps=speed_mps).radius_m
