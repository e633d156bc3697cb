"""Turns: each line's own speed from its lateral place, and where that puts its lure.

Quasi-steady model: in a turn of radius R the whole tow turns about one centre. A point that trails
``b`` behind and ``y`` to the side of the boat's own circle moves on a circle of radius r, and its
speed is the boat's times r / R. Lines lag and cut the corner: the lure of a trailing line follows a
tractrix and settles on a smaller circle, ``r**2 = (R + y)**2 - b**2`` (the line is tangent to the
lure's circle). Depths are those of a straight tow at the lure's own speed, reached after a lag.

Limits: the turn is steady and wide against the line; the line's own bend in plan, shear between
its upper and lower parts, and the boat's drift are left out. Where ``b`` exceeds the tip's radius
there is no steady place: the lure hangs near the centre, and the turn is too tight for that line.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from ..errors import InvalidInputError

Side = Literal["port", "starboard"]

TIGHTEST_M: Final = 2.0


@dataclass(frozen=True, slots=True, kw_only=True)
class LineInTurn:
    """A line in a steady turn.

    Parameters
    ----------
    tip_radius_m : float
        Radius of the circle of its rod tip, m.
    lure_radius_m : float
        Radius of the circle its lure settles on, m; 0 when the turn is too tight.
    speed_factor : float
        The lure's speed over the boat's.
    is_inside : bool
        Whether its tip is on the inner side of the boat.
    too_tight : bool
        Whether the line is longer behind the tip than the turn allows.
    settle_s : float
        Time until it is there for two thirds, s.
    """

    tip_radius_m: float
    lure_radius_m: float
    speed_factor: float
    is_inside: bool
    too_tight: bool
    settle_s: float


def turn_radius_m(*, speed_mps: float, rate_degps: float) -> float:
    """Return the radius of a turn from speed and rate of turn.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s, > 0.
    rate_degps : float
        Rate of turn, degrees a second, > 0.

    Returns
    -------
    float
        Radius, m.

    Examples
    --------
    >>> round(turn_radius_m(speed_mps=1.0, rate_degps=360 / 6.283185307), 6)
    1.0
    """
    require_number("speed_mps", speed_mps, above=0.0, high=20.0, unit="m/s")
    require_number("rate_degps", rate_degps, above=0.0, high=90.0, unit="degrees/s")
    return speed_mps / math.radians(rate_degps)


def asked_radius_m(
    *, speed_mps: float, radius_m: float | None, rate_degps: float | None
) -> float | None:
    """Return the radius of a turn asked for by its radius or by its rate.

    Parameters
    ----------
    speed_mps : float
        Speed through water, m/s.
    radius_m : float or None
        Radius, m.
    rate_degps : float or None
        Rate of turn, degrees a second.

    Returns
    -------
    float or None
        Radius, m; None where neither is given.

    Raises
    ------
    InvalidInputError
        If both are given, or the rate cannot be.
    """
    if rate_degps is None:
        return radius_m
    if radius_m is not None:
        raise InvalidInputError("rate_degps", rate_degps, "left out where a radius is given")
    return turn_radius_m(speed_mps=speed_mps, rate_degps=rate_degps)


def line_in_turn(
    *, radius_m: float, toward: Side, tip_side_m: float, trail_m: float, speed_mps: float
) -> LineInTurn:
    """Return how a line fares in a steady turn.

    Parameters
    ----------
    radius_m : float
        Radius of the boat's own circle, m, at least 2.
    toward : {'port', 'starboard'}
        The side turned to.
    tip_side_m : float
        Lateral place of the rod tip, or board, m, starboard positive.
    trail_m : float
        Distance of the lure behind the tip, m, >= 0.
    speed_mps : float
        Boat's speed through water, m/s, > 0.

    Returns
    -------
    LineInTurn

    Raises
    ------
    InvalidInputError
        If a number cannot be.

    Notes
    -----
    The lag is the time the lure needs to travel its own trail: a tractrix forgets the old course
    over about its own length.

    Examples
    --------
    >>> line = line_in_turn(radius_m=50.0, toward="port", tip_side_m=0.0, trail_m=30.0,
    ...                     speed_mps=1.0)
    >>> line.lure_radius_m, line.speed_factor
    (40.0, 0.8)
    """
    require_number("radius_m", radius_m, low=TIGHTEST_M, high=10_000.0, unit="m")
    require_number("tip_side_m", tip_side_m, low=-80.0, high=80.0, unit="m")
    require_number("trail_m", trail_m, low=0.0, high=600.0, unit="m")
    require_number("speed_mps", speed_mps, above=0.0, high=20.0, unit="m/s")
    # Turning to starboard, a tip to starboard is nearer the centre.
    outward = tip_side_m if toward == "port" else -tip_side_m
    tip_radius = radius_m + outward
    square = tip_radius * tip_radius - trail_m * trail_m
    too_tight = tip_radius <= 0.0 or square <= 0.0
    lure_radius = 0.0 if too_tight else math.sqrt(square)
    return LineInTurn(
        tip_radius_m=tip_radius, lure_radius_m=lure_radius, speed_factor=lure_radius / radius_m,
        is_inside=outward < 0.0, too_tight=too_tight, settle_s=trail_m / speed_mps,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class PlanPoint:
    """A place seen from above, from the boat's stern.

    Parameters
    ----------
    behind_m : float
        Behind the stern, m.
    side_m : float
        To starboard, m.
    """

    behind_m: float
    side_m: float


def lure_place_in_turn(
    *, radius_m: float, toward: Side, tip_side_m: float, trail_m: float
) -> PlanPoint | None:
    """Return where a lure settles in a steady turn, seen from above.

    Parameters
    ----------
    radius_m : float
        Radius of the boat's own circle, m.
    toward : {'port', 'starboard'}
        The side turned to.
    tip_side_m : float
        Lateral place of the rod tip, m, starboard positive.
    trail_m : float
        Distance of the lure behind the tip, m.

    Returns
    -------
    PlanPoint or None
        None when the turn is too tight for the line.

    Notes
    -----
    The line is tangent to the lure's circle: the angle at the centre between tip and lure is
    ``atan2(trail, r)``.
    """
    line = line_in_turn(
        radius_m=radius_m, toward=toward, tip_side_m=tip_side_m, trail_m=trail_m, speed_mps=1.0
    )
    if line.too_tight:
        return None
    angle = math.atan2(trail_m, line.lure_radius_m)
    behind = line.lure_radius_m * math.sin(angle)
    inward = radius_m - line.lure_radius_m * math.cos(angle)
    return PlanPoint(behind_m=behind, side_m=inward if toward == "starboard" else -inward)
