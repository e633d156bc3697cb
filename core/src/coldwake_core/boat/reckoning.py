"""How far the boat may be from where it is reckoned to be, and when that is no place any more."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number

FIX_M: Final = 6.0
"""Standard error of a satellite fix, m, each way (judged; receivers state 3 to 10 m)."""
SPEED_SHARE: Final = 0.1
SPEED_MPS: Final = 0.1
"""Standard error of the speed made good: a tenth of it, and wind and current not noted (judged)."""
COURSE_DEG: Final = 12.0
"""Standard error of the course made good by hand over minutes, degrees (judged)."""
CIRCLE_LEVEL: Final = 0.80
_CIRCLE: Final = math.sqrt(-2.0 * math.log(1.0 - CIRCLE_LEVEL))
KNOWN_WITHIN_M: Final = 150.0
"""Beyond a circle of this radius a place says nothing of the bottom under the boat (judged: several
boat turns, the width of a bank)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class PlaceDoubt:
    """How far off a reckoned place may be.

    Parameters
    ----------
    along_m, across_m : float
        Standard errors along the course and across it, m.
    """

    along_m: float
    across_m: float

    @property
    def radius_m(self) -> float:
        """Radius of the circle that holds the boat four times in five, m."""
        return _CIRCLE * math.sqrt(0.5 * (self.along_m**2 + self.across_m**2))

    @property
    def is_known(self) -> bool:
        """Whether the place still says something of the bottom under the boat."""
        return self.radius_m <= KNOWN_WITHIN_M


def place_doubt(*, age_s: float, ground_mps: float) -> PlaceDoubt:
    """Return how far off a place may be that is reckoned on from a fix.

    Parameters
    ----------
    age_s : float
        Seconds since the fix; one that lies ahead counts the same.
    ground_mps : float
        Speed over ground reckoned with, m/s, >= 0.

    Returns
    -------
    PlaceDoubt

    Raises
    ------
    InvalidInputError
        If a number cannot be.

    Notes
    -----
    Dead reckoning with independent errors of the fix, of the speed and of the course: along grows
    with the speed's error times the time, across with the distance times the sine of the course's
    error. The circle is that of a round normal distribution of the same mean square.

    Examples
    --------
    >>> fresh = place_doubt(age_s=0.0, ground_mps=1.0)
    >>> round(fresh.radius_m, 1)
    10.8
    >>> place_doubt(age_s=660.0, ground_mps=0.8).is_known
    False
    """
    age = abs(require_number("age_s", age_s, unit="s"))
    ground = require_number("ground_mps", ground_mps, low=0.0, unit="m/s")
    speed_error = math.hypot(SPEED_SHARE * ground, SPEED_MPS)
    return PlaceDoubt(
        along_m=math.hypot(FIX_M, speed_error * age),
        across_m=math.hypot(FIX_M, ground * age * math.sin(math.radians(COURSE_DEG))),
    )
