"""Sound in fresh water: what a sonar that reckons with one speed of it makes of a depth."""

from __future__ import annotations

from typing import Final

from ..checks import require_number

RECKONED_MPS: Final = 1500.0
"""Many units reckon with this speed whatever the water is (judged: a round figure, of the sea)."""


def sound_speed_mps(temperature_degc: float) -> float:
    """Return the speed of sound in fresh water at the pressure of the air.

    Parameters
    ----------
    temperature_degc : float
        Water temperature, 0 to 45 degrees Celsius.

    Returns
    -------
    float
        m/s.

    Raises
    ------
    InvalidInputError
        If the temperature is outside the range of a lake.

    Notes
    -----
    A polynomial of the fifth degree, stated accuracy 0.02 m/s over 0-95 degrees Celsius.

    References
    ----------
    Marczak, W. (1997). Water as a standard in the measurements of speed of sound in liquids.
    J. Acoust. Soc. Am. 102(5), 2776-2779; coefficients from memory.

    Examples
    --------
    >>> round(sound_speed_mps(20.0), 1)
    1482.4
    """
    t = require_number("temperature_degc", temperature_degc, low=0.0, high=45.0, unit="°C")
    return 1402.385 + t * (
        5.038813 + t * (-5.799136e-2 + t * (3.287156e-4 + t * (-1.398845e-6 + t * 2.787860e-9)))
    )


def shown_depth_m(
    below_m: float, *, temperature_degc: float, reckoned_mps: float = RECKONED_MPS
) -> float:
    """Return what a unit shows for a distance below its transducer.

    Parameters
    ----------
    below_m : float
        True distance below the transducer, m.
    temperature_degc : float
        Mean temperature of the water between, degrees Celsius.
    reckoned_mps : float
        Speed of sound that the unit reckons with, m/s.

    Returns
    -------
    float
        Distance it shows, m: more than the true one in cold water.

    Raises
    ------
    InvalidInputError
        If a number cannot be.
    """
    require_number("below_m", below_m, low=0.0, high=300.0, unit="m")
    require_number("reckoned_mps", reckoned_mps, low=1300.0, high=1700.0, unit="m/s")
    return below_m * reckoned_mps / sound_speed_mps(temperature_degc)
