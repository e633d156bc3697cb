"""Density and viscosity of fresh water at the pressure of the air."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..checks import require_number

_LOWEST_DEGC = -1.0
_HIGHEST_DEGC = 45.0


def density_kgpm3(temperature_degc: float) -> float:
    """Return the density of air-free fresh water at one atmosphere.

    Parameters
    ----------
    temperature_degc : float
        Water temperature, -1 to 45 degrees Celsius.

    Returns
    -------
    float
        Density, kg/m3.

    Raises
    ------
    InvalidInputError
        If the temperature is outside the range of a lake.

    Notes
    -----
    Rational polynomial, valid 0-150 degrees Celsius, stated accuracy 1e-5.

    References
    ----------
    Kell, G.S. (1975). Density, thermal expansivity and compressibility of liquid water from 0 to
    150 degrees C. J. Chem. Eng. Data 20(1), 97-105.

    Examples
    --------
    >>> round(density_kgpm3(4.0), 2)
    999.97
    """
    t = require_number(
        "temperature_degc", temperature_degc, low=_LOWEST_DEGC, high=_HIGHEST_DEGC, unit="°C"
    )
    return float(kell_kgpm3(t))


def kell_kgpm3(temperature_degc: Any) -> Any:
    """Return Kell's polynomial of density, of a number or of an array, unchecked.

    Parameters
    ----------
    temperature_degc : float or ndarray
        Water temperature, degrees Celsius.

    Returns
    -------
    float or ndarray
        Density, kg/m3.

    References
    ----------
    Kell, G.S. (1975). J. Chem. Eng. Data 20(1), 97-105.
    """
    t = temperature_degc
    top = 999.83952 + t * (
        16.945176
        + t * (-7.9870401e-3 + t * (-46.170461e-6 + t * (105.56302e-9 - t * 280.54253e-12)))
    )
    return top / (1.0 + 16.879850e-3 * t)


def viscosity_pas(temperature_degc: float) -> float:
    """Return the dynamic viscosity of fresh water at 0.1 MPa.

    Parameters
    ----------
    temperature_degc : float
        Water temperature, -1 to 45 degrees Celsius.

    Returns
    -------
    float
        Dynamic viscosity, Pa s.

    Raises
    ------
    InvalidInputError
        If the temperature is outside the range of a lake.

    References
    ----------
    Patek, J., Hruby, J., Klomfar, J., Souckova, M., Harvey, A.H. (2009). Reference correlations for
    thermophysical properties of liquid water at 0.1 MPa. J. Phys. Chem. Ref. Data 38, 21-29.

    Examples
    --------
    >>> round(viscosity_pas(20.0) * 1e3, 3)
    1.002
    """
    t = require_number(
        "temperature_degc", temperature_degc, low=_LOWEST_DEGC, high=_HIGHEST_DEGC, unit="°C"
    )
    r = (t + 273.15) / 300.0
    return float(
        1e-6 * (280.68 * r**-1.9 + 511.45 * r**-7.7 + 61.131 * r**-19.6 + 0.45903 * r**-40.0)
    )


@dataclass(frozen=True, slots=True)
class Water:
    """Fresh water as a towed line feels it.

    Parameters
    ----------
    density_kgpm3 : float
        Density, kg/m3.
    viscosity_m2ps : float
        Kinematic viscosity, m2/s.
    """

    density_kgpm3: float
    viscosity_m2ps: float

    @classmethod
    def at_degc(cls, temperature_degc: float) -> Water:
        """Return the water of a temperature.

        Parameters
        ----------
        temperature_degc : float
            Water temperature, degrees Celsius.

        Returns
        -------
        Water
        """
        rho = density_kgpm3(temperature_degc)
        return cls(density_kgpm3=rho, viscosity_m2ps=viscosity_pas(temperature_degc) / rho)
