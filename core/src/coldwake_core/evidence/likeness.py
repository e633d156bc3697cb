"""How like another a day was: what an earlier day may say of this one."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

SEASON_DAYS: Final = 40.0
SURFACE_DEGC: Final = 3.0
CLARITY: Final = 0.7
"""Differences at which a day says six tenths of what one just like it would (judged)."""
UNKNOWN: Final = 0.8
"""What each thing that nobody wrote down leaves of it (judged)."""
OTHER_WATER: Final = 0.6
"""What another water leaves of it (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class DayMarks:
    """What two days are likened by.

    Parameters
    ----------
    day_of_year : float
        Day of the year, 0 to 366.
    surface_degc : float or None
        Surface temperature, degrees Celsius, where anybody read or forecast it.
    secchi_m : float or None
        Secchi depth, m, where it is known.
    water : str
        Name of the water.
    """

    day_of_year: float
    surface_degc: float | None
    secchi_m: float | None
    water: str


def likeness(one: DayMarks, other: DayMarks) -> float:
    """Return how like two days of the same fish are.

    Parameters
    ----------
    one, other : DayMarks
        The days.

    Returns
    -------
    float
        0 to 1.

    Notes
    -----
    A product of bells in the days between them around the year, in the surface temperature and in
    the logarithm of the clarity; what is not known counts as UNKNOWN. Common practice keeps notes
    by month, temperature and clarity; the widths are judged.
    """
    apart = abs(one.day_of_year - other.day_of_year)
    found = _bell(min(apart, 365.25 - min(apart, 365.25)) / SEASON_DAYS)
    if one.surface_degc is None or other.surface_degc is None:
        found *= UNKNOWN
    else:
        found *= _bell((one.surface_degc - other.surface_degc) / SURFACE_DEGC)
    if one.secchi_m is None or other.secchi_m is None:
        found *= UNKNOWN
    else:
        found *= _bell(math.log(one.secchi_m / other.secchi_m) / CLARITY)
    return found if one.water == other.water else OTHER_WATER * found


def _bell(off: float) -> float:
    return math.exp(-0.5 * off * off)
