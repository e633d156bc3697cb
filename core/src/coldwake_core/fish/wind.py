"""The wind of the moment: how the hull points, how the lines stream, what to steer by GPS."""

from __future__ import annotations

from ..boat.wind import own_pass_speeds, steering
from ..errors import InvalidInputError
from .ahead import OLDEST_FIX_S
from .lines import TripLines
from .view import WindView


def wind_view(lines: TripLines, now_s: float) -> WindView | None:
    """Return the wind, and what it does at the speed of the moment.

    Parameters
    ----------
    lines : TripLines
        The trip's lines.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    WindView or None
        None where no wind was noted.
    """
    wind, speed, fix = lines.state.wind, lines.speed_mps, lines.state.fix
    if wind is None:
        return None
    course = fix[1].course_deg if fix is not None and now_s - fix[0] <= OLDEST_FIX_S else None
    heading = leeway = None
    if course is not None:
        try:
            held = steering(
                course_deg=course, through_water_mps=speed, wind=wind,
                current=lines.state.current,
            )
            heading, leeway = held.heading_deg, held.leeway_deg
        except InvalidInputError:
            # A current that carries the boat off is told beside the speed already.
            course = None
    across = steering(course_deg=wind.from_deg + 90.0, through_water_mps=speed, wind=wind)
    passes = own_pass_speeds(through_water_mps=speed, wind=wind)
    return WindView(
        wind=wind, course_deg=course, heading_deg=heading, leeway_deg=leeway,
        across_deg=abs(across.leeway_deg),
        into_mps=None if passes is None else passes[0],
        with_mps=None if passes is None else passes[1],
    )
