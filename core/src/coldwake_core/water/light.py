"""Light under water: how much is left at a depth, and what is left of a colour."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number

SECCHI_M: Final[dict[str, float]] = {"clear": 6.0, "stained": 2.5, "muddy": 0.7}
"""What the words stand for where nobody lowered a disc (judged)."""
POOLE_ATKINS: Final = 1.7
"""Attenuation times Secchi depth (Poole & Atkins 1929)."""
YELLOW_SLOPE_PNM: Final = 0.014
"""How fast the tint of dissolved matter fades toward red, 1/nm (Bricaud, Morel & Prieur 1981)."""
PURE_WATER_PM: Final[dict[int, float]] = {
    400: 0.0066, 450: 0.0092, 475: 0.0114, 500: 0.0204, 525: 0.0417, 550: 0.0565, 575: 0.0772,
    600: 0.2224, 625: 0.283, 650: 0.340, 700: 0.624,
}
"""Absorption of pure water, 1/m, by wavelength, nm (Pope & Fry 1997, from memory)."""
_BAND_NM: Final = {"red": 620.0, "orange": 600.0, "yellow": 575.0, "green": 540.0, "blue": 470.0}
SEEN: Final = 0.02
"""Under this share of its light a colour is only dark against its surroundings (judged)."""


def attenuation_pm(secchi_m: float) -> float:
    """Return how fast daylight fades with depth.

    Parameters
    ----------
    secchi_m : float
        Secchi depth, 0.1 to 40 m.

    Returns
    -------
    float
        Diffuse attenuation, 1/m.

    Raises
    ------
    InvalidInputError
        If there is no such Secchi depth.

    References
    ----------
    Poole, H.H. & Atkins, W.R.G. (1929). J. Mar. Biol. Assoc. 16, 297-324.
    """
    require_number("secchi_m", secchi_m, low=0.1, high=40.0, unit="m")
    return POOLE_ATKINS / secchi_m


def daylight(elevation_deg: float, cloud: float) -> float:
    """Return how bright it is at the surface.

    Parameters
    ----------
    elevation_deg : float
        Height of the sun, degrees.
    cloud : float
        Cloud cover, 0 to 1.

    Returns
    -------
    float
        0 in the dark to 1 under a clear sky with the sun overhead.

    References
    ----------
    Kasten, F. & Czeplak, G. (1980). Solar and terrestrial radiation dependent on the amount and
    type of cloud. Solar Energy 24, 177-189.
    """
    clear = max(math.sin(math.radians(elevation_deg)), 0.0)
    return clear * (1.0 - 0.75 * math.pow(cloud, 3.4))


def light_left(depth_m: float, secchi_m: float) -> float:
    """Return the share of the light under the surface that is left at a depth.

    Parameters
    ----------
    depth_m, secchi_m : float
        Depth and Secchi depth, m.

    Returns
    -------
    float
        0 to 1.

    References
    ----------
    Poole, H.H. & Atkins, W.R.G. (1929). J. Mar. Biol. Assoc. 16, 297-324.

    Examples
    --------
    >>> round(light_left(3.0, 3.0), 3)
    0.183
    """
    return math.exp(-attenuation_pm(secchi_m) * require_number("depth_m", depth_m, low=0.0))


def spectral_attenuation_pm(wavelength_nm: float, secchi_m: float) -> float:
    """Return how fast light of a colour fades with depth.

    Parameters
    ----------
    wavelength_nm : float
        400 to 700 nm.
    secchi_m : float
        Secchi depth, m.

    Returns
    -------
    float
        1/m.

    Raises
    ------
    InvalidInputError
        If the wavelength is outside the visible.

    Notes
    -----
    Pure water plus a tint that fades with wavelength, so strong that green (550 nm) fades as Poole
    & Atkins say for this Secchi depth, or pure water where that is less. Particles are lumped with
    the tint: rough, good for an order of colours and not for a photometer.

    References
    ----------
    .. [1] Pope, R.M. & Fry, E.S. (1997). Absorption spectrum (380-700 nm) of pure water. Appl. Opt.
       36, 8710-8723.
    .. [2] Bricaud, A., Morel, A. & Prieur, L. (1981). Absorption by dissolved organic matter of the
       sea in the UV and visible domains. Limnol. Oceanogr. 26, 43-53.
    """
    require_number("wavelength_nm", wavelength_nm, low=400.0, high=700.0, unit="nm")
    tint = max(attenuation_pm(secchi_m) - _pure_pm(550.0), 0.0)
    return _pure_pm(wavelength_nm) + tint * math.exp(-YELLOW_SLOPE_PNM * (wavelength_nm - 550.0))


def _pure_pm(wavelength_nm: float) -> float:
    known = sorted(PURE_WATER_PM)
    below = max(nm for nm in known if nm <= wavelength_nm)
    above = min(nm for nm in known if nm >= wavelength_nm)
    if below == above:
        return PURE_WATER_PM[below]
    share = (wavelength_nm - below) / (above - below)
    return PURE_WATER_PM[below] * (1.0 - share) + PURE_WATER_PM[above] * share


@dataclass(frozen=True, slots=True, kw_only=True)
class ColourAtDepth:
    """What is left of a colour, seen from a fish beside it.

    Parameters
    ----------
    name : str
        The colour in air.
    left : float
        Share of its light that is left, 0 to 1.
    against : float
        The same over the best of the colours there: 1 for the one that shows best.
    shows : bool
        Whether it still shows as a colour.
    """

    name: str
    left: float
    against: float
    shows: bool


def colours_at(depth_m: float, secchi_m: float) -> tuple[ColourAtDepth, ...]:
    """Return how the plain colours fare at a depth, best first.

    Parameters
    ----------
    depth_m, secchi_m : float
        Depth and Secchi depth, m.

    Returns
    -------
    tuple of ColourAtDepth
        Equal ones in the order red to blue.

    Notes
    -----
    Light comes down and is thrown back beside the eye: one way through the depth. UV-bright paint
    answers light that is gone within a metre or two of stained water; glow needs none.
    """
    require_number("depth_m", depth_m, low=0.0, high=300.0, unit="m")
    left = {
        name: math.exp(-spectral_attenuation_pm(nm, secchi_m) * depth_m)
        for name, nm in _BAND_NM.items()
    }
    best = max(max(left.values()), 1e-12)
    found = [
        ColourAtDepth(
            name=name, left=share, against=share / best, shows=share / best >= 0.1 and share >= SEEN
        )
        for name, share in left.items()
    ]
    return tuple(sorted(found, key=lambda colour: -colour.left))
