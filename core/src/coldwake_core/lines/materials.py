"""What lines are made of: a small table, each figure with its source or marked from memory."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Final

from ..checks import require_number
from ..constants import GRAVITY_MPS2, LEAD_DENSITY_KGPM3, POUND_KG, STEEL_DENSITY_KGPM3
from ..errors import InvalidInputError, UnknownItemError
from ..water.fresh import Water
from .towed import Segment


@dataclass(frozen=True, slots=True, kw_only=True)
class LineMaterial:
    """A line as the water feels it.

    Parameters
    ----------
    id : str
        Key of the table.
    name : str
        Plain name.
    diameter_m : float
        Outer diameter, m.
    solid_density_kgpm3 : float
        Density of the solid matter (sheath and core apart), kg/m3.
    fill : float
        Share of the outer cross-section that is solid; the rest floods with water.
    core_diameter_m : float
        Diameter of a lead core, m; 0 for none.
    strength_n : float
        Its class: the load it is sold for, N.
    damping : float
        Damping ratio of its own vibration: how much of the strumming it swallows.
    weighed : bool
        Whether its weight was measured.
    source : str
        Where the figures come from.
    """

    id: str
    name: str
    diameter_m: float
    solid_density_kgpm3: float
    fill: float = 1.0
    core_diameter_m: float = 0.0
    strength_n: float = 0.0
    damping: float = 0.02
    weighed: bool = False
    source: str = "from memory"

    def check(self) -> None:
        """Raise InvalidInputError unless this could be a line.

        Raises
        ------
        InvalidInputError
            If diameter, density, fill or core cannot be.
        """
        require_number("diameter_m", self.diameter_m, above=0.0, high=0.01, unit="m")
        require_number(
            "solid_density_kgpm3", self.solid_density_kgpm3, low=500.0, high=20000.0, unit="kg/m3"
        )
        require_number("fill", self.fill, above=0.0, high=1.0)
        require_number("core_diameter_m", self.core_diameter_m, low=0.0, unit="m")
        if self.core_diameter_m >= self.diameter_m:
            raise InvalidInputError(
                "core_diameter_m", self.core_diameter_m, "thinner than the line around it"
            )

    @property
    def mass_kgpm(self) -> float:
        """Dry mass per length, kg/m."""
        core = math.pi / 4 * self.core_diameter_m**2
        return core * LEAD_DENSITY_KGPM3 + self._sheath_area_m2 * self.solid_density_kgpm3

    @property
    def mean_density_kgpm3(self) -> float:
        """Mass over the volume of what is solid, kg/m3: sheath and core together."""
        core = math.pi / 4 * self.core_diameter_m**2
        return self.mass_kgpm / (core + self._sheath_area_m2)

    @property
    def _sheath_area_m2(self) -> float:
        return math.pi / 4 * (self.diameter_m**2 - self.core_diameter_m**2) * self.fill

    def segment(
        self, length_m: float, *, water: Water, weight_factor: float = 1.0,
        drag_factor: float = 1.0, strum_factor: float = 1.0,
    ) -> Segment:
        """Return a stretch of this line in a water.

        Parameters
        ----------
        length_m : float
            Length, m, > 0.
        water : Water
            The water it hangs in.
        weight_factor : float
            Multiplies its weight in water.
        drag_factor : float
            Multiplies its normal drag.
        strum_factor : float
            Multiplies what strumming adds to it.

        Returns
        -------
        Segment
        """
        core = math.pi / 4 * self.core_diameter_m**2
        displaced = (core + self._sheath_area_m2) * water.density_kgpm3
        return Segment(
            length_m=length_m,
            diameter_m=self.diameter_m,
            weight_npm=weight_factor * (self.mass_kgpm - displaced) * GRAVITY_MPS2,
            drag_factor=drag_factor,
            weight_air_npm=self.mass_kgpm * GRAVITY_MPS2,
            strum_factor=strum_factor,
            # Mass over that of the water it displaces with what floods it, and the added mass.
            mass_damping=self.damping * (
                1.0 + self.mass_kgpm / (math.pi / 4 * self.diameter_m**2 * water.density_kgpm3)
            ),
        )

    def with_mass(self, mass_kgpm: float) -> LineMaterial:
        """Return this leadcore with the weight that was measured: its lead is made to fit.

        Parameters
        ----------
        mass_kgpm : float
            Dry mass per length, kg/m.

        Returns
        -------
        LineMaterial

        Raises
        ------
        InvalidInputError
            If the line has no lead, or the mass cannot be that of a strand inside it.
        """
        if self.core_diameter_m <= 0.0:
            raise InvalidInputError("mass_kgpm", mass_kgpm, "left out: this line has no lead core")
        sheath = self.fill * self.solid_density_kgpm3
        full = math.pi / 4 * self.diameter_m**2 * sheath
        square = (mass_kgpm - full) / (math.pi / 4 * (LEAD_DENSITY_KGPM3 - sheath))
        if not 0.0 < square < self.diameter_m**2:
            most = math.pi / 4 * self.diameter_m**2 * LEAD_DENSITY_KGPM3
            raise InvalidInputError(
                "mass_kgpm", mass_kgpm, f"between {full:.4f} and {most:.4f} kg/m: its sheath alone "
                "weighs the one, solid lead of its size the other",
                low=full, high=most, reason="colour_mass",
            )
        return replace(self, core_diameter_m=math.sqrt(square), weighed=True)


NYLON_DENSITY_KGPM3: Final = 1140.0
FLUOROCARBON_DENSITY_KGPM3: Final = 1780.0
POLYETHYLENE_DENSITY_KGPM3: Final = 970.0
"""Nylon 6, PVDF and high-modulus polyethylene: handbook values of the polymers."""
_BRAIDED_DAMPING: Final = 0.10
"""Damping ratio of braids and sheaths, half their loss tangent of 0.1-0.3; solid lines have about
0.02, steel strand 0.01 (textile and wire rope handbooks, from memory)."""
_POUND_N: Final = POUND_KG * GRAVITY_MPS2


def _mono(pounds: int, millimetres: float) -> LineMaterial:
    return LineMaterial(
        id=f"mono-{pounds}", name=f"{pounds} lb monofilament", diameter_m=millimetres / 1000,
        solid_density_kgpm3=NYLON_DENSITY_KGPM3, strength_n=pounds * _POUND_N,
    )


def _fluoro(pounds: int, millimetres: float) -> LineMaterial:
    return LineMaterial(
        id=f"fluoro-{pounds}", name=f"{pounds} lb fluorocarbon", diameter_m=millimetres / 1000,
        solid_density_kgpm3=FLUOROCARBON_DENSITY_KGPM3, strength_n=pounds * _POUND_N,
    )


def _braid(pounds: int, millimetres: float) -> LineMaterial:
    return LineMaterial(
        id=f"braid-{pounds}", name=f"{pounds} lb braid", diameter_m=millimetres / 1000,
        solid_density_kgpm3=POLYETHYLENE_DENSITY_KGPM3, fill=0.8, strength_n=pounds * _POUND_N,
        damping=_BRAIDED_DAMPING,
    )


_STRAND_M: Final = 0.000525
"""Lead strand of an 18 lb leadcore that weighs 13 grains a foot (assumed.LEADCORE_GRAINS_PER_FOOT)
with its sheath; a test holds it to that."""


def _leadcore(pounds: int, millimetres: float) -> LineMaterial:
    return LineMaterial(
        id=f"leadcore-{pounds}", name=f"{pounds} lb leadcore", diameter_m=millimetres / 1000,
        solid_density_kgpm3=NYLON_DENSITY_KGPM3, fill=0.7,
        core_diameter_m=_STRAND_M, strength_n=pounds * _POUND_N, damping=_BRAIDED_DAMPING,
        source="from memory: one lead strand for all classes, a thicker sheath for the stronger",
    )


MATERIALS: Final[dict[str, LineMaterial]] = {
    material.id: material
    for material in (
        _mono(6, 0.23), _mono(8, 0.26), _mono(10, 0.29), _mono(12, 0.33), _mono(15, 0.36),
        _mono(17, 0.40), _mono(20, 0.45),
        _fluoro(8, 0.26), _fluoro(10, 0.28), _fluoro(12, 0.33), _fluoro(15, 0.36),
        _braid(15, 0.20), _braid(20, 0.23), _braid(30, 0.28), _braid(50, 0.36),
        _leadcore(12, 0.80), _leadcore(15, 0.83), _leadcore(18, 0.87), _leadcore(27, 0.97),
        LineMaterial(
            id="cable-steel-150", name="150 lb steel cable", diameter_m=0.00084,
            solid_density_kgpm3=STEEL_DENSITY_KGPM3, fill=0.77, strength_n=150 * _POUND_N,
            damping=0.01,
            source="from memory: seven strands, fill of seven circles in one 7/9",
        ),
        LineMaterial(
            id="cable-braid-200", name="200 lb braid cable", diameter_m=0.00070,
            solid_density_kgpm3=POLYETHYLENE_DENSITY_KGPM3, fill=0.8, strength_n=200 * _POUND_N,
            damping=_BRAIDED_DAMPING,
        ),
    )
}


def material(material_id: str, *, field: str = "material") -> LineMaterial:
    """Return a line material of the table.

    Parameters
    ----------
    material_id : str
        Key of the table.
    field : str
        Name of the input, for the message.

    Returns
    -------
    LineMaterial

    Raises
    ------
    UnknownItemError
        If the table has no such material.
    """
    try:
        return MATERIALS[material_id]
    except (KeyError, TypeError):
        raise UnknownItemError(field, material_id, "one of " + ", ".join(MATERIALS)) from None
