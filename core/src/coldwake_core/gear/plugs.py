"""Generic plugs by size and lip: a starting point where a plug's own points are not known."""

from __future__ import annotations

from typing import Final

from ..constants import INCH_M, MPH_MPS
from ..lines.bodies import PLUG_GIRTH_RATIO, Lip, plug_volume_m3
from .pieces import Lure, SpeedRange

PLUG_SIZES_IN: Final = (2.0, 2.75, 3.5, 4.5, 5.0)
PLUG_LIPS: Final[tuple[Lip, ...]] = ("small", "medium", "deep")
_FLOATING_DENSITY: Final = 780.0
_SINKING_DENSITY: Final = 1450.0
"""Mean densities of floating and sinking plugs with hooks, kg/m3 (judged: the sinking one falls
a little under a foot a second and runs 2-3 ft down on the troll, common practice)."""
_RANGES_MPH: Final[dict[str, tuple[float, float]]] = {
    "none": (1.2, 2.8), "small": (1.2, 2.8), "medium": (1.2, 3.0), "deep": (1.5, 4.0),
}


def generic_plug(*, length_in: float, lip: Lip, sinking: bool = False) -> Lure:
    """Return a generic plug of the catalogue.

    Parameters
    ----------
    length_in : float
        One of PLUG_SIZES_IN, inches.
    lip : {'none', 'small', 'medium', 'deep'}
        Its lip.
    sinking : bool
        Whether it sinks at rest.

    Returns
    -------
    Lure
        With a plain name, and working speeds as common practice has them.
    """
    length = length_in * INCH_M
    girth = PLUG_GIRTH_RATIO * length
    volume = plug_volume_m3(length_m=length, width_m=girth)
    low, high = _RANGES_MPH[lip]
    kind = "Sinking" if sinking else "Floating"
    hundredths = round(length_in * 100)
    return Lure(
        id=f"plug-{hundredths}-{lip}-{'s' if sinking else 'f'}",
        name=f"{kind} {length_in:g} in plug, {'no' if lip == 'none' else lip} lip",
        colour="plain", kind="plug",
        length_m=length, width_m=girth,
        mass_kg=volume * (_SINKING_DENSITY if sinking else _FLOATING_DENSITY),
        works=SpeedRange(low_mps=low * MPH_MPS, high_mps=high * MPH_MPS), own_action=True, lip=lip,
    )


def plug_catalogue() -> tuple[Lure, ...]:
    """Return every generic plug, floating and sinking.

    Returns
    -------
    tuple of Lure
        The floating ones by lip, and lipless sinking minnows.
    """
    floating = (
        generic_plug(length_in=size, lip=lip) for size in PLUG_SIZES_IN for lip in PLUG_LIPS
    )
    sinking = (
        generic_plug(length_in=size, lip="none", sinking=True) for size in PLUG_SIZES_IN
    )
    return (*floating, *sinking)
