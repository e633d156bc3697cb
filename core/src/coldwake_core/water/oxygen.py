"""Oxygen in fresh water: what it can hold, and a profile of it as it was measured."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError

MOST_MGPL: Final = 25.0
"""More than this is a slip of the pen: cold water holds 14.6 mg/l, an algal bloom half as much
again."""
MOST_READINGS: Final = 500


def oxygen_saturation_mgpl(temperature_degc: float) -> float:
    """Return the oxygen that fresh water holds beneath a standard atmosphere.

    Parameters
    ----------
    temperature_degc : float
        Water temperature, 0 to 40 degrees Celsius.

    Returns
    -------
    float
        mg/l.

    Raises
    ------
    InvalidInputError
        If the temperature is outside the range of the fit.

    Notes
    -----
    At sea level and without salt; a lake at 2 000 m holds a fifth less.

    References
    ----------
    Benson, B.B. & Krause, D. (1984). The concentration and isotopic fractionation of oxygen
    dissolved in freshwater and seawater in equilibrium with the atmosphere. Limnol. Oceanogr.
    29(3), 620-632; the unit standard equation, constants from memory.

    Examples
    --------
    >>> round(oxygen_saturation_mgpl(20.0), 2)
    9.09
    """
    t = require_number(
        "temperature_degc", temperature_degc, low=0.0, high=40.0, unit="°C"
    ) + 273.15
    return math.exp(
        -139.34411 + 1.575701e5 / t - 6.642308e7 / t**2 + 1.2438e10 / t**3 - 8.621949e11 / t**4
    )


def check_oxygen(
    profile: Sequence[tuple[float, float]], *, field: str = "oxygen"
) -> tuple[tuple[float, float], ...]:
    """Return a profile of oxygen that runs from the surface down.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and oxygen, mg/l.
    field : str
        Name to use in an error.

    Returns
    -------
    tuple of (float, float)

    Raises
    ------
    InvalidInputError
        If there are too many readings, one cannot be, or a depth does not lie below the one before.
    """
    if not 1 <= len(profile) <= MOST_READINGS:
        raise InvalidInputError(field, len(profile), f"1 to {MOST_READINGS} readings")
    checked: list[tuple[float, float]] = []
    for index, (depth, oxygen) in enumerate(profile):
        where = f"{field}[{index}]"
        require_number(f"{where}.depth_m", depth, low=0.0, high=300.0, unit="m")
        require_number(f"{where}.oxygen_mgpl", oxygen, low=0.0, high=MOST_MGPL, unit="mg/l")
        if checked and depth <= checked[-1][0]:
            raise InvalidInputError(
                f"{where}.depth_m", depth, "deeper than the reading before it, each depth once"
            )
        checked.append((depth, oxygen))
    return tuple(checked)
