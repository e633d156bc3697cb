"""Wind and GPS of the moment: how hull and lines lie, what to steer, what the lures feel."""

from __future__ import annotations

from typing import Final

from ...boat.current import Current, GroundTrack, water_speed_mps
from ...boat.wind import headwind_extra_mps, own_pass_speeds, steering
from ...checks import require_number
from ...errors import InvalidInputError
from ...gear.pieces import FASTEST_MPS, SLOWEST_MPS
from ...trip.now import Now
from .view import WindView

OLDEST_COURSE_S: Final = 900.0
"""A course is taken as held for a quarter of an hour after it was told (judged)."""


def wind_view(now: Now, now_s: float) -> WindView | None:
    """Return the wind, and what it does at the speed of the moment.

    Parameters
    ----------
    now : Now
        The trip as it stands.
    now_s : float
        The moment, seconds since 1970-01-01 UTC.

    Returns
    -------
    WindView or None
        None where no wind was noted.
    """
    wind, speed, fix = now.state.wind, now.speed_mps, now.state.fix
    if wind is None:
        return None
    course = fix[1].course_deg if fix is not None and now_s - fix[0] <= OLDEST_COURSE_S else None
    heading = leeway = None
    if course is not None:
        try:
            held = steering(
                course_deg=course, through_water_mps=speed, wind=wind,
                current=now.state.current,
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


def through_water_mps(now: Now, *, gps_mps: float, course_deg: float) -> float:
    """Return the speed through the water behind what GPS shows.

    Parameters
    ----------
    now : Now
        The trip as it stands, for the current and the wind that were noted.
    gps_mps : float
        Speed over ground, m/s.
    course_deg : float
        Course over ground, degrees from north.

    Returns
    -------
    float
        m/s: what the lures feel, by vectors for the current and by the user's own look for wind.

    Raises
    ------
    InvalidInputError
        If GPS shows no trolling speed, or the current and wind noted leave none.
    """
    require_number("gps_mps", gps_mps, low=0.0, high=20.0, unit="m/s")
    require_number("course_deg", course_deg, low=0.0, high=360.0, unit="degrees")
    still = Current(speed_mps=0.0, toward_deg=0.0)
    speed = water_speed_mps(
        ground=GroundTrack(speed_mps=gps_mps, course_deg=course_deg),
        current=now.state.current or still,
    )
    if now.state.wind is not None:
        speed -= headwind_extra_mps(wind=now.state.wind, course_deg=course_deg)
    if not SLOWEST_MPS <= speed <= FASTEST_MPS:
        raise InvalidInputError(
            "gps_mps", round(gps_mps, 3),
            "a speed that leaves a trolling speed through the water: look at the current and the "
            "wind you noted",
        )
    return speed
