"""Heat that goes through the surface of a lake, and how deep its light goes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from ..water.layers import AIR_DENSITY_KGPM3

Array = NDArray[np.float64]

STEFAN_BOLTZMANN: Final = 5.670374419e-8
"""W/m2/K4 (CODATA 2018, exact)."""
KELVIN: Final = 273.15
EMISSIVITY: Final = 0.97
"""Of water, in the long-wave (Edinger, Brady & Geyer 1974)."""
AIR_HEAT_JPKGK: Final = 1005.0
PRESSURE_HPA: Final = 1013.25
BULK: Final = 1.3e-3
"""Exchange coefficient at 10 m of heat, vapour and momentum (Large & Pond 1981, 1982: 1.0e-3 to
1.3e-3 in the winds that are fished; one value, from memory)."""
DIFFUSE_ALBEDO: Final = 0.066
"""Of water under an overcast sky (Burt 1954, from memory)."""
_N_WATER: Final = 1.333


def clear_sky_wpm2(elevation_deg: Array) -> Array:
    """Return the sun's light on level ground under a clear sky.

    Parameters
    ----------
    elevation_deg : ndarray
        Height of the sun, degrees.

    Returns
    -------
    ndarray
        W/m2, 0 when the sun is down.

    References
    ----------
    Haurwitz, B. (1945). Insolation in relation to cloudiness and cloud density. J. Meteorol. 2,
    154-166.
    """
    up = np.maximum(np.sin(np.radians(elevation_deg)), 1e-6)
    return np.where(elevation_deg > 0.0, 1098.0 * up * np.exp(-0.059 / up), 0.0)


def cloud_factor(cloud: Array) -> Array:
    """Return the share of the clear sky's light that a cloudy one lets through.

    Parameters
    ----------
    cloud : ndarray
        Cloud cover, 0 to 1.

    Returns
    -------
    ndarray

    References
    ----------
    Kasten, F. & Czeplak, G. (1980). Solar and terrestrial radiation dependent on the amount and
    type of cloud. Solar Energy 24, 177-189.
    """
    return 1.0 - 0.75 * cloud**3.4


def albedo(elevation_deg: Array, cloud: Array) -> Array:
    """Return the share of light that the surface throws back.

    Parameters
    ----------
    elevation_deg, cloud : ndarray
        Height of the sun, degrees; cloud cover, 0 to 1.

    Returns
    -------
    ndarray

    Notes
    -----
    Fresnel's law for a flat surface and unpolarised light under a clear sky, a constant for the
    overcast one, shared by cloud cover.
    """
    incidence = np.radians(90.0 - np.clip(elevation_deg, 0.5, 90.0))
    refracted = np.arcsin(np.sin(incidence) / _N_WATER)
    less, more = incidence - refracted, incidence + refracted
    with np.errstate(invalid="ignore", divide="ignore"):
        fresnel = 0.5 * (
            (np.sin(less) / np.sin(more)) ** 2 + (np.tan(less) / np.tan(more)) ** 2
        )
    upright = ((_N_WATER - 1.0) / (_N_WATER + 1.0)) ** 2
    fresnel = np.where(incidence < 1e-6, upright, fresnel)
    return (1.0 - cloud) * fresnel + cloud * DIFFUSE_ALBEDO


def vapour_pressure_hpa(temperature_degc: Array) -> Array:
    """Return the saturation vapour pressure over water.

    Parameters
    ----------
    temperature_degc : ndarray
        Degrees Celsius, -40 to 50.

    Returns
    -------
    ndarray
        hPa.

    References
    ----------
    Bolton, D. (1980). The computation of equivalent potential temperature. Mon. Weather Rev. 108,
    1046-1053.
    """
    return 6.112 * np.exp(17.67 * temperature_degc / (temperature_degc + 243.5))


def sky_longwave_wpm2(air_degc: Array, humidity: Array, cloud: Array) -> Array:
    """Return the long-wave radiation of the sky.

    Parameters
    ----------
    air_degc, humidity, cloud : ndarray
        Air, degrees Celsius; relative humidity and cloud cover, 0 to 1.

    Returns
    -------
    ndarray
        W/m2.

    References
    ----------
    .. [1] Idso, S.B. (1981). A set of equations for full spectrum and 8- to 14-um and 10.5- to
       12.5-um thermal radiation from cloudless skies. Water Resour. Res. 17, 295-304.
    .. [2] Tennessee Valley Authority (1972). Heat and mass transfer between a water surface and the
       atmosphere. Report 14 (cloud: 1 + 0.17 C2).
    """
    kelvin = air_degc + KELVIN
    vapour = humidity * vapour_pressure_hpa(air_degc)
    emissivity = np.minimum(0.70 + 5.95e-5 * vapour * np.exp(1500.0 / kelvin), 1.0)
    clear = emissivity * STEFAN_BOLTZMANN * kelvin**4
    return np.minimum(clear * (1.0 + 0.17 * cloud**2), STEFAN_BOLTZMANN * kelvin**4 * 1.02)


def surface_heat_wpm2(
    surface_degc: Array, *, air_degc: Array, humidity: Array, cloud: Array, wind_mps: Array
) -> Array:
    """Return the heat that the very surface gains: long-wave, evaporation, sensible heat.

    Parameters
    ----------
    surface_degc : ndarray
        Water, degrees Celsius.
    air_degc, humidity, cloud, wind_mps : ndarray
        Air, degrees Celsius; relative humidity and cloud cover, 0 to 1; wind, m/s.

    Returns
    -------
    ndarray
        W/m2, positive into the water.

    Notes
    -----
    Bulk formulae with one coefficient; a dead calm still exchanges by free convection, for which
    0.5 m/s of gustiness is added (Fairall et al. 1996, from memory).

    References
    ----------
    Edinger, J.E., Brady, D.K. & Geyer, J.C. (1974). Heat exchange and transport in the environment.
    Report 14, Johns Hopkins University.
    """
    wind = np.sqrt(wind_mps**2 + 0.5**2)
    vapour_sea, vapour_air = vapour_pressure_hpa(surface_degc), vapour_pressure_hpa(air_degc)
    wetness = 0.622 / PRESSURE_HPA * (humidity * vapour_air - vapour_sea)
    latent_heat = 2.501e6 - 2361.0 * surface_degc
    sensible = AIR_DENSITY_KGPM3 * AIR_HEAT_JPKGK * BULK * wind * (air_degc - surface_degc)
    latent = AIR_DENSITY_KGPM3 * latent_heat * BULK * wind * wetness
    out = EMISSIVITY * STEFAN_BOLTZMANN * (surface_degc + KELVIN) ** 4
    sky = EMISSIVITY * sky_longwave_wpm2(air_degc, humidity, cloud)
    return sensible + latent + sky - out


@dataclass(frozen=True, slots=True, kw_only=True)
class Absorption:
    """How sunlight fades with depth: two bands, each by its own length.

    Parameters
    ----------
    red_share : float
        Share of the light that the first metres take.
    red_m, blue_m : float
        Depths at which each band has faded to 1/e, m.

    References
    ----------
    Paulson, C.A. & Simpson, J.J. (1977). Irradiance measurements in the upper ocean. J. Phys.
    Oceanogr. 7, 952-956.
    """

    red_share: float
    red_m: float
    blue_m: float

    def left(self, depth_m: Array) -> Array:
        """Return the share of the light that reaches a depth, m."""
        return (
            self.red_share * np.exp(-depth_m / self.red_m)
            + (1.0 - self.red_share) * np.exp(-depth_m / self.blue_m)
        )


PAULSON_SIMPSON: Final = (
    Absorption(red_share=0.58, red_m=0.35, blue_m=23.0),
    Absorption(red_share=0.62, red_m=0.60, blue_m=20.0),
    Absorption(red_share=0.67, red_m=1.0, blue_m=17.0),
    Absorption(red_share=0.77, red_m=1.5, blue_m=14.0),
    Absorption(red_share=0.78, red_m=1.4, blue_m=7.9),
)
"""Water types I, IA, IB, II and III of Paulson & Simpson (1977), table 2."""


def absorption(secchi_m: float) -> Absorption:
    """Return how light fades in water of a Secchi depth.

    Parameters
    ----------
    secchi_m : float
        Depth at which a white disc is lost, m.

    Returns
    -------
    Absorption

    Notes
    -----
    The long band by Poole & Atkins (1929), K = 1.7 / Secchi; share and length of the short band are
    water type I's, where they are the infrared and no colour of the water is mixed in. Lakes are
    outside the table: 58 % in the first 35 cm is the sun's own share beyond 700 nm, more or less.

    References
    ----------
    .. [1] Paulson, C.A. & Simpson, J.J. (1977). J. Phys. Oceanogr. 7, 952-956.
    .. [2] Poole, H.H. & Atkins, W.R.G. (1929). Photo-electric measurements of submarine
       illumination throughout the year. J. Mar. Biol. Assoc. 16, 297-324.
    """
    infrared = PAULSON_SIMPSON[0]
    return Absorption(
        red_share=infrared.red_share, red_m=infrared.red_m, blue_m=secchi_m / 1.7
    )
