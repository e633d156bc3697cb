"""Wind: it pushes the boat through the water, and the boat alone.

Two things can be known of it in a small boat. How the boat drifts in neutral: a vector that adds
to the hull's own motion, so that the boat slides and its lines stream off to windward. And the
user's own look beside the boat: the GPS speeds, into the wind and with it, at which the lures
worked alike.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from .current import Current, speed_and_direction, vector

FASTEST_DRIFT_MPS: Final = 2.0
"""About 4.5 mph adrift: nobody trolls in such a wind."""
_FASTEST_SEEN_MPS: Final = 4.5


@dataclass(frozen=True, slots=True, kw_only=True)
class Wind:
    """The wind as a troller meets it.

    Parameters
    ----------
    from_deg : float
        Where it blows from, degrees from north.
    drift_mps : float
        How fast the boat drifts before it through the water in neutral, m/s; 0 where not known.
    into_mps, with_mps : float or None
        GPS speeds into the wind and with it, m/s, at which the lures worked alike beside the boat.
    """

    from_deg: float
    drift_mps: float = 0.0
    into_mps: float | None = None
    with_mps: float | None = None

    def check(self) -> None:
        """Raise InvalidInputError unless a boat could troll in it."""
        require_number("from_deg", self.from_deg, low=0.0, high=360.0, unit="degrees")
        require_number("drift_mps", self.drift_mps, low=0.0, high=FASTEST_DRIFT_MPS, unit="m/s")
        if (self.into_mps is None) != (self.with_mps is None):
            missing = "into_mps" if self.into_mps is None else "with_mps"
            raise InvalidInputError(missing, None, "given as well: a look takes both ways")
        for name in ("into_mps", "with_mps"):
            seen = getattr(self, name)
            if seen is not None:
                require_number(name, seen, above=0.0, high=_FASTEST_SEEN_MPS, unit="m/s")


@dataclass(frozen=True, slots=True, kw_only=True)
class Steering:
    """How to hold a course in wind and current.

    Parameters
    ----------
    heading_deg : float
        Where the hull points, degrees from north.
    hull_mps : float
        What the motor has to give along the hull, m/s: at this throttle, without wind, the boat
        would do so much.
    leeway_deg : float
        How far the lines stream to starboard of straight astern, degrees: to windward.
    """

    heading_deg: float
    hull_mps: float
    leeway_deg: float


def steering(
    *, course_deg: float, through_water_mps: float, wind: Wind, current: Current | None = None
) -> Steering:
    """Return how to hold a course over ground at a speed through the water.

    Parameters
    ----------
    course_deg : float
        Course over ground, degrees from north.
    through_water_mps : float
        Speed of boat and lures through the water, m/s, > 0.
    wind : Wind
        The wind, with how the boat drifts before it.
    current : Current, optional
        The current; none is still water.

    Returns
    -------
    Steering

    Raises
    ------
    InvalidInputError
        If a current across the course is faster than the boat.

    Notes
    -----
    Vector sums: over ground = through water + current, through water = along the hull + drift. The
    lines stream against the motion through the water, not along the hull. The drift is taken as it
    is in neutral, whichever way the hull points.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.

    Examples
    --------
    >>> held = steering(course_deg=0.0, through_water_mps=0.8,
    ...                 wind=Wind(from_deg=270.0, drift_mps=0.6))
    >>> round(held.hull_mps, 6), round(held.leeway_deg, 2)
    (1.0, -36.87)
    """
    wind.check()
    require_number("through_water_mps", through_water_mps, above=0.0, high=20.0, unit="m/s")
    require_number("course_deg", course_deg)
    water_deg = course_deg
    if current is not None:
        current.check()
        across = current.speed_mps * math.sin(math.radians(current.toward_deg - course_deg))
        if abs(across) >= through_water_mps:
            raise InvalidInputError(
                "current.speed_mps", round(current.speed_mps, 3),
                "slower across the course than the boat: it would be carried off",
                high=through_water_mps,
            )
        water_deg -= math.degrees(math.asin(across / through_water_mps))
    north, east = vector(through_water_mps, water_deg)
    drift_north, drift_east = vector(wind.drift_mps, wind.from_deg + 180.0)
    hull, heading = speed_and_direction(north - drift_north, east - drift_east)
    # Seen from the hull the boat moves off to leeward, so the lines stream to the other side.
    leeway = (heading - water_deg + 180.0) % 360.0 - 180.0
    return Steering(heading_deg=heading, hull_mps=hull, leeway_deg=leeway)


def own_pass_speeds(*, through_water_mps: float, wind: Wind) -> tuple[float, float] | None:
    """Return what to steer by GPS into the wind and with it, by the user's own look at the lures.

    Parameters
    ----------
    through_water_mps : float
        Wanted speed through water, m/s.
    wind : Wind
        The wind, with what was seen.

    Returns
    -------
    (float, float) or None
        Into the wind and with it, m/s; None where no look was taken, or it leaves no speed.

    Notes
    -----
    Common practice: about 0.9 mph shown with the wind behind, as in a calm, and about 1.2 into it
    look alike. So the reading with the wind counts as the speed through the water, and the
    difference seen is added going into it.

    Examples
    --------
    >>> seen = Wind(from_deg=0.0, into_mps=1.2, with_mps=0.9)
    >>> [round(speed, 3) for speed in own_pass_speeds(through_water_mps=1.0, wind=seen)]
    [1.3, 1.0]
    """
    if wind.into_mps is None:
        return None
    into = through_water_mps + headwind_extra_mps(wind=wind, course_deg=wind.from_deg)
    return (into, through_water_mps) if into > 0.0 else None


def headwind_extra_mps(*, wind: Wind, course_deg: float) -> float:
    """Return what GPS shows more, for the same action of the lures, on a course into the wind.

    Parameters
    ----------
    wind : Wind
        The wind, with what was seen.
    course_deg : float
        Course, degrees from north.

    Returns
    -------
    float
        m/s; 0 without a look, and with the wind abeam or behind.

    Notes
    -----
    The whole difference seen straight into the wind, less of it by the cosine off the bow (judged:
    nobody looks at every angle).
    """
    if wind.into_mps is None or wind.with_mps is None:
        return 0.0
    share = math.cos(math.radians(course_deg - wind.from_deg))
    return (wind.into_mps - wind.with_mps) * max(share, 0.0)
