"""What was sounded on a trip, where that is known: for the water's own chart."""

from __future__ import annotations

from dataclasses import dataclass

from ..chart.grid import GeoPoint
from .fold import SAME_PLACE_S
from .state import TripState
from .whereabouts import place_at


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
    """
    found = []
    for at_s, bottom_m, speed_mps in state.soundings:
        near = place_at(state, at_s, speed_mps=speed_mps, within_s=SAME_PLACE_S)
        if near is not None:
            place, doubt = near
            found.append(DaySounding(at_s=at_s, bottom_m=bottom_m, place=place, doubt_m=doubt))
    return tuple(found)
