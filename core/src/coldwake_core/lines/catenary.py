"""The short piece of line between water and rod tip: no drag to speak of, so a catenary."""

from __future__ import annotations

import math
from dataclasses import dataclass

_LIGHT = 1e-9
"""Weight lifted relative to tension below which the piece is a straight line."""


@dataclass(frozen=True, slots=True)
class AirSpan:
    """Line in the air from the surface to the rod tip.

    Parameters
    ----------
    length_m : float
        Arc length, m.
    forward_m : float
        Horizontal distance from the surface to the tip, m.
    """

    length_m: float
    forward_m: float


def air_span(
    *, height_m: float, tension_n: float, angle_rad: float, weight_npm: float
) -> AirSpan | None:
    """Return the line that rises from the surface to a rod tip, given what it pulls with there.

    Parameters
    ----------
    height_m : float
        Height of the tip above the water, m, >= 0.
    tension_n : float
        Tension of the line where it leaves the water, N, > 0.
    angle_rad : float
        Its angle above the horizontal there, rad.
    weight_npm : float
        Weight of the line in air, N/m, >= 0.

    Returns
    -------
    AirSpan or None
        None when the line leaves the water falling and too light to climb to the tip.

    Notes
    -----
    Inextensible catenary; wind on the line is left out (under 1 % of the line's weight at trolling
    speeds, more in a gale).

    References
    ----------
    Irvine, H.M. (1981). Cable Structures, ch. 1: the catenary. From memory.

    Examples
    --------
    >>> span = air_span(height_m=3.0, tension_n=10.0, angle_rad=0.5, weight_npm=0.0)
    >>> round(span.length_m * 0.479426, 3)
    3.0
    """
    if height_m <= 0.0:
        return AirSpan(0.0, 0.0)
    horizontal = tension_n * math.cos(angle_rad)
    vertical = tension_n * math.sin(angle_rad)
    if weight_npm * height_m < _LIGHT * tension_n:
        if vertical <= 0.0:
            return None
        length = height_m * tension_n / vertical
        return AirSpan(length, length * math.cos(angle_rad))
    top = tension_n + weight_npm * height_m
    rise = math.sqrt(max(top * top - horizontal * horizontal, 0.0))
    length = (rise - vertical) / weight_npm
    if horizontal < _LIGHT * tension_n:
        return AirSpan(length, 0.0)
    a = horizontal / weight_npm
    forward = a * (math.asinh(rise / horizontal) - math.asinh(vertical / horizontal))
    return AirSpan(length, forward)
