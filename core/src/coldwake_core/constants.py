"""Physical constants and the exact unit definitions the trade's figures are written in."""

from typing import Final

GRAVITY_MPS2: Final = 9.80665
"""Standard gravity (3rd CGPM, 1901)."""

LEAD_DENSITY_KGPM3: Final = 11340.0
"""Lead at room temperature (CRC Handbook of Chemistry and Physics)."""

STEEL_DENSITY_KGPM3: Final = 7900.0
"""Stainless steel (18-8), from memory; makers' figures run 7850-8000."""

# Exact by the international yard and pound agreement of 1959.
FOOT_M: Final = 0.3048
INCH_M: Final = 0.0254
YARD_M: Final = 0.9144
MPH_MPS: Final = 0.44704
KNOT_MPS: Final = 1852.0 / 3600.0
POUND_KG: Final = 0.45359237
OUNCE_KG: Final = POUND_KG / 16.0

COLOUR_M: Final = 10.0 * YARD_M
"""One colour of leadcore: the sheath changes colour every 10 yd (common practice)."""


def degc_from_degf(temperature_degf: float) -> float:
    """Return the Celsius temperature of a Fahrenheit one; the trade's figures are in Fahrenheit.

    Parameters
    ----------
    temperature_degf : float
        Temperature, degrees Fahrenheit.

    Returns
    -------
    float
        Temperature, degrees Celsius.

    Examples
    --------
    >>> degc_from_degf(50.0)
    10.0
    """
    return (temperature_degf - 32.0) / 1.8
