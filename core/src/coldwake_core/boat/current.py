"""Speed through water against speed over ground: plain vector sums.

GPS shows speed over ground; a lure feels speed through water. A current carries boat and lure
alike. Wind is another matter (see ``wind``): it pushes the boat and not the lure.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError

FASTEST_CURRENT_MPS: Final = 4.0
"""About 9 mph: beyond anything that is trolled in."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Current:
    """Water that moves over the ground.

    Parameters
    ----------
    speed_mps : float
        Its speed, m/s, >= 0.
    toward_deg : float
        Where it flows to, degrees from north, clockwise.
    """

    speed_mps: float
    toward_deg: float

    def check(self) -> None:
        """Raise InvalidInputError unless it is a current one could fish in."""
        require_number(
            "speed_mps", self.speed_mps, low=0.0, high=FASTEST_CURRENT_MPS, unit="m/s"
        )
        require_number("toward_deg", self.toward_deg, low=0.0, high=360.0, unit="degrees")


@dataclass(frozen=True, slots=True, kw_only=True)
class GroundTrack:
    """What GPS shows of a boat that moves through moving water.

    Parameters
    ----------
    speed_mps : float
        Speed over ground, m/s.
    course_deg : float
        Course over ground, degrees from north.
    """

    speed_mps: float
    course_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PassSpeeds:
    """What to steer by GPS for one speed through water, both ways of the pass.

    Parameters
    ----------
    up_mps, down_mps : float
        Speed over ground against the current and with it, m/s.
    up_course_deg, down_course_deg : float
        Courses over ground, degrees from north.
    """

    up_mps: float
    down_mps: float
    up_course_deg: float
    down_course_deg: float


def vector(speed_mps: float, direction_deg: float) -> tuple[float, float]:
    """Return a velocity's parts to north and east.

    Parameters
    ----------
    speed_mps : float
        Its size, m/s.
    direction_deg : float
        Where it points, degrees from north, clockwise.

    Returns
    -------
    (float, float)
        North and east, m/s.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.
    """
    angle = math.radians(direction_deg)
    return speed_mps * math.cos(angle), speed_mps * math.sin(angle)


def speed_and_direction(north_mps: float, east_mps: float) -> tuple[float, float]:
    """Return size and direction of a velocity.

    Parameters
    ----------
    north_mps, east_mps : float
        Its parts, m/s.

    Returns
    -------
    (float, float)
        m/s, and degrees from north in 0 to 360; due north where there is no motion.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.
    """
    speed = math.hypot(north_mps, east_mps)
    return speed, math.degrees(math.atan2(east_mps, north_mps)) % 360.0 if speed > 0.0 else 0.0


def ground_track(*, water_speed_mps: float, heading_deg: float, current: Current) -> GroundTrack:
    """Return speed and course over ground of a boat that heads through a current.

    Parameters
    ----------
    water_speed_mps : float
        Speed through water, m/s, >= 0.
    heading_deg : float
        Heading, degrees from north.
    current : Current
        The current.

    Returns
    -------
    GroundTrack

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.

    Examples
    --------
    >>> ground_track(water_speed_mps=1.5, heading_deg=0.0,
    ...              current=Current(speed_mps=0.5, toward_deg=180.0)).speed_mps
    1.0
    """
    current.check()
    require_number("water_speed_mps", water_speed_mps, low=0.0, high=20.0, unit="m/s")
    require_number("heading_deg", heading_deg)
    north, east = vector(water_speed_mps, heading_deg)
    flow_north, flow_east = vector(current.speed_mps, current.toward_deg)
    speed, course = speed_and_direction(north + flow_north, east + flow_east)
    return GroundTrack(speed_mps=speed, course_deg=course)


def water_speed_mps(*, ground: GroundTrack, current: Current) -> float:
    """Return the speed through water of a boat whose track over ground is known.

    Parameters
    ----------
    ground : GroundTrack
        What GPS shows.
    current : Current
        The current.

    Returns
    -------
    float
        Speed through water, m/s.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.
    """
    current.check()
    north, east = vector(ground.speed_mps, ground.course_deg)
    flow_north, flow_east = vector(current.speed_mps, current.toward_deg)
    return math.hypot(north - flow_north, east - flow_east)


def pass_speeds(*, through_water_mps: float, current: Current) -> PassSpeeds:
    """Return what to steer by GPS, straight up and straight down a current.

    Parameters
    ----------
    through_water_mps : float
        Wanted speed through water, m/s, > 0.
    current : Current
        The current.

    Returns
    -------
    PassSpeeds

    Raises
    ------
    InvalidInputError
        If the current is as fast as the boat: going up, it would stand still or go back.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.

    Examples
    --------
    >>> speeds = pass_speeds(through_water_mps=1.5,
    ...                      current=Current(speed_mps=0.5, toward_deg=180.0))
    >>> speeds.up_mps, speeds.down_mps
    (1.0, 2.0)
    """
    current.check()
    require_number("through_water_mps", through_water_mps, above=0.0, high=20.0, unit="m/s")
    if current.speed_mps >= through_water_mps:
        raise InvalidInputError(
            "current.speed_mps", round(current.speed_mps, 3),
            f"slower than the boat ({through_water_mps:.2f} m/s through water): "
            "against it the boat would go backward",
            high=through_water_mps,
        )
    return PassSpeeds(
        up_mps=through_water_mps - current.speed_mps,
        down_mps=through_water_mps + current.speed_mps,
        up_course_deg=(current.toward_deg + 180.0) % 360.0, down_course_deg=current.toward_deg,
    )


def current_from_two_runs(*, first: GroundTrack, second: GroundTrack) -> Current:
    """Return the current from two runs at the same throttle, one up and one down.

    Parameters
    ----------
    first, second : GroundTrack
        What GPS showed on each, in about opposite directions.

    Returns
    -------
    Current

    Raises
    ------
    InvalidInputError
        If the runs were not about opposite, within 30 degrees.

    Notes
    -----
    At one throttle and opposite headings the boat's own motion cancels: the current is half the
    sum of the two ground vectors.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.

    Examples
    --------
    >>> found = current_from_two_runs(first=GroundTrack(speed_mps=2.0, course_deg=180.0),
    ...                               second=GroundTrack(speed_mps=1.0, course_deg=0.0))
    >>> found.speed_mps, round(found.toward_deg)
    (0.5, 180)
    """
    apart = abs((first.course_deg - second.course_deg + 180.0) % 360.0 - 180.0)
    if apart < 150.0:
        raise InvalidInputError(
            "second.course_deg", round(second.course_deg, 1),
            "about opposite to the first run, within 30 degrees",
        )
    one, other = (vector(run.speed_mps, run.course_deg) for run in (first, second))
    speed, toward = speed_and_direction(0.5 * (one[0] + other[0]), 0.5 * (one[1] + other[1]))
    return Current(speed_mps=speed, toward_deg=toward)


def ground_speed_on_course(
    *, through_water_mps: float, course_deg: float, current: Current | None
) -> float:
    """Return the speed over ground of a boat that holds a course through moving water.

    Parameters
    ----------
    through_water_mps : float
        Speed through water, m/s.
    course_deg : float
        Course over ground, degrees from north.
    current : Current or None
        The current; none is still water.

    Returns
    -------
    float
        m/s; 0 where the current cannot be stemmed.

    Notes
    -----
    The boat heads so far up that the current's cross part is cancelled.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.

    Examples
    --------
    >>> round(ground_speed_on_course(through_water_mps=1.0, course_deg=90.0,
    ...                              current=Current(speed_mps=0.6, toward_deg=0.0)), 6)
    0.8
    """
    if current is None:
        return through_water_mps
    along, across = _along_and_across(current, course_deg)
    square = through_water_mps**2 - across**2
    return max(along + math.sqrt(square), 0.0) if square > 0.0 else 0.0


def _along_and_across(current: Current, course_deg: float) -> tuple[float, float]:
    """A current's parts along a course and across it to starboard, m/s."""
    return vector(current.speed_mps, current.toward_deg - course_deg)


def water_heading_deg(
    *, through_water_mps: float, course_deg: float, current: Current | None
) -> float | None:
    """Return the heading through the water that holds a course over ground.

    Parameters
    ----------
    through_water_mps : float
        Speed through water, m/s.
    course_deg : float
        Course over ground, degrees from north.
    current : Current or None
        The current; none is still water.

    Returns
    -------
    float or None
        Degrees from north, 0 to 360; None where the current carries the boat off, or back.

    References
    ----------
    Bowditch, N. The American Practical Navigator, the chapter on current sailing: the triangle of
    velocities. From memory.

    Examples
    --------
    >>> round(water_heading_deg(through_water_mps=1.0, course_deg=90.0,
    ...                         current=Current(speed_mps=0.5, toward_deg=0.0)), 6)
    120.0
    """
    if current is None:
        return course_deg % 360.0
    over_ground = ground_speed_on_course(
        through_water_mps=through_water_mps, course_deg=course_deg, current=current
    )
    if over_ground <= 0.0:
        return None
    _, across = _along_and_across(current, course_deg)
    return (course_deg - math.degrees(math.asin(across / through_water_mps))) % 360.0
