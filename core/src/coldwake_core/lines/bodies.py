"""What is pulled at the end of a line: lures, attractors, weights, and the force each makes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final, Literal

from ..checks import require_number
from ..constants import GRAVITY_MPS2, LEAD_DENSITY_KGPM3
from ..errors import InvalidInputError
from ..water.fresh import Water
from .drag import sphere_drag_coefficient

Lip = Literal["none", "small", "medium", "deep"]

LIP_AREA_PER_GIRTH: Final[dict[str, float]] = {
    "none": 0.0, "small": 0.5, "medium": 1.0, "deep": 2.0,
}
"""Area of a diving lip over the square of the plug's girth diameter: judged from the shapes."""

# One set for every plug, spoon and soft lure; no lure has a constant of its own.
PLUG_GIRTH_RATIO: Final = 0.20
"""Greatest diameter over length of a minnow-shaped plug: judged from the shapes."""
PLUG_FULLNESS: Final = 0.70
"""Volume over that of the ellipsoid of the same length and girth: judged from the shapes."""
PLUG_DRAG: Final = 0.45
"""On frontal area, with hooks: between a faired body and a blunt one (Hoerner 1965, ch. 3)."""
LIP_FORCE: Final = 0.9
"""Down-force, and drag, of a flat lip at about 45 degrees on its area: normal force coefficient
1.2-1.5 of a square plate at that angle (Hoerner 1965, ch. 3), times cos 45."""
PLATE_LEVER: Final = 0.8
"""Share of a towed plate's weight that its own lift carries at full speed (see PlateBody)."""
PLATE_DRAG: Final = 0.35
"""On planform, swinging or fluttering: between edge-on and broadside; common practice only."""
BallShape = Literal["round", "torpedo", "disc"]
BALL_FRONT: Final[dict[str, tuple[float, float]]] = {"torpedo": (0.55, 0.25), "disc": (0.50, 0.30)}
"""Frontal area over that of a round ball of the same mass, and its drag coefficient with fin: a
body three diameters long, a thick disc edge-on (Hoerner 1965, ch. 3, 6: 0.1-0.3; areas judged)."""
SOFT_DRAG: Final = 1.0
"""Bluff body, on frontal area (Hoerner 1965, ch. 3)."""


@dataclass(frozen=True, slots=True)
class EndLoad:
    """Pull of a towed body on its line.

    Parameters
    ----------
    back_n : float
        Drag, N.
    down_n : float
        Downward force, N; negative pulls up.
    """

    back_n: float
    down_n: float

    def __add__(self, other: EndLoad) -> EndLoad:
        return EndLoad(self.back_n + other.back_n, self.down_n + other.down_n)

    @property
    def tension_n(self) -> float:
        """Tension that answers the pull, N."""
        return math.hypot(self.back_n, self.down_n)

    @property
    def angle_rad(self) -> float:
        """Angle above the horizontal of the line that answers the pull, rad."""
        return math.atan2(self.down_n, self.back_n)


@dataclass(frozen=True, slots=True, kw_only=True)
class TowedBody:
    """A lure, attractor or weight reduced to the numbers that make force.

    Parameters
    ----------
    mass_kg, volume_m3 : float
        Mass, kg, and displaced volume, m3.
    drag_area_m2 : float
        Drag coefficient times area, m2.
    down_area_m2 : float
        Down-force coefficient times area of a lip, m2.
    plate_area_m2 : float
        Planform of a blade or spoon that planes on its own lift, m2; 0 for none.
    """

    mass_kg: float
    volume_m3: float
    drag_area_m2: float
    down_area_m2: float = 0.0
    plate_area_m2: float = 0.0

    def load(
        self, speed_mps: float, water: Water, *, drag_factor: float = 1.0, lift_factor: float = 1.0
    ) -> EndLoad:
        """Return the pull on the line at a speed.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        drag_factor, lift_factor : float
            Multiply drag, and lip force; used to carry doubt.

        Returns
        -------
        EndLoad

        Notes
        -----
        A plate towed by its nose rides at the angle ``a`` at which the moment of its normal force
        ``2 q A sin(a)`` balances that of its weight: ``tan(a) = lever W / (2 q A)``. Its lift then
        carries ``lever cos(a)**2`` of the weight, which is why a heavy spoon runs shallow when
        fast and hangs when slow.
        """
        q = 0.5 * water.density_kgpm3 * speed_mps * speed_mps
        weight = (self.mass_kg - self.volume_m3 * water.density_kgpm3) * GRAVITY_MPS2
        back = q * self.drag_area_m2 * drag_factor
        down = weight + q * self.down_area_m2 * lift_factor
        if self.plate_area_m2 > 0.0 and weight > 0.0:
            stiffness = 2.0 * q * self.plate_area_m2
            slope = PLATE_LEVER * weight
            carried = PLATE_LEVER * stiffness**2 / (stiffness**2 + slope**2)
            down -= weight * min(carried * lift_factor, 1.0)
        return EndLoad(back, down)


@dataclass(frozen=True, slots=True, kw_only=True)
class Ball:
    """A weight: round, or shaped to slip through the water.

    Parameters
    ----------
    mass_kg : float
        Mass, kg.
    shape : {'round', 'torpedo', 'disc'}
        Its shape.
    density_kgpm3 : float
        Density of its metal, kg/m3.
    """

    mass_kg: float
    density_kgpm3: float = LEAD_DENSITY_KGPM3
    shape: BallShape = "round"

    def __post_init__(self) -> None:
        require_number("mass_kg", self.mass_kg, above=0.0, high=25.0, unit="kg")
        require_number(
            "density_kgpm3", self.density_kgpm3, low=2000.0, high=20000.0, unit="kg/m3"
        )

    @property
    def diameter_m(self) -> float:
        """Diameter of a round ball of that mass, m."""
        return float((6.0 * self.mass_kg / (math.pi * self.density_kgpm3)) ** (1.0 / 3.0))

    def load(
        self, speed_mps: float, water: Water, *, drag_factor: float = 1.0
    ) -> EndLoad:
        """Return the pull on its cable at a speed.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        drag_factor : float
            Multiplies drag; used to carry doubt.

        Returns
        -------
        EndLoad
        """
        weight = self.mass_kg * (1 - water.density_kgpm3 / self.density_kgpm3) * GRAVITY_MPS2
        if speed_mps <= 0.0:
            return EndLoad(0.0, weight)
        diameter = self.diameter_m
        if self.shape == "round":
            front = 1.0
            coefficient = sphere_drag_coefficient(speed_mps * diameter / water.viscosity_m2ps)
        else:
            front, coefficient = BALL_FRONT[self.shape]
        q = 0.5 * water.density_kgpm3 * speed_mps * speed_mps
        return EndLoad(
            drag_factor * q * coefficient * front * math.pi / 4 * diameter**2, weight
        )


def plug_body(*, length_m: float, mass_kg: float, lip: Lip) -> TowedBody:
    """Return the body of a minnow-shaped plug.

    Parameters
    ----------
    length_m : float
        Length without lip, m.
    mass_kg : float
        Mass with hooks, kg; against its volume this decides whether it floats.
    lip : {'none', 'small', 'medium', 'deep'}
        Size of the diving lip.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If length or mass cannot be a plug's.
    """
    require_number("length_m", length_m, above=0.005, high=0.5, unit="m")
    require_number("mass_kg", mass_kg, above=0.0, high=0.5, unit="kg")
    if lip not in LIP_AREA_PER_GIRTH:
        raise InvalidInputError("lip", lip, "one of " + ", ".join(LIP_AREA_PER_GIRTH))
    girth = PLUG_GIRTH_RATIO * length_m
    lip_force = LIP_FORCE * LIP_AREA_PER_GIRTH[lip] * girth**2
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=PLUG_FULLNESS * math.pi / 6 * length_m * girth**2,
        drag_area_m2=PLUG_DRAG * math.pi / 4 * girth**2 + lip_force,
        down_area_m2=lip_force,
    )


def plate_body(
    *, length_m: float, width_m: float, mass_kg: float, density_kgpm3: float = 8500.0
) -> TowedBody:
    """Return the body of a spoon, dodger or other metal blade.

    Parameters
    ----------
    length_m, width_m : float
        Length and greatest width, m.
    mass_kg : float
        Mass, kg.
    density_kgpm3 : float
        Density of its metal, kg/m3; brass to begin with.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If the measures cannot be a blade's.
    """
    require_number("length_m", length_m, above=0.005, high=0.5, unit="m")
    require_number("width_m", width_m, above=0.001, high=0.3, unit="m")
    require_number("mass_kg", mass_kg, above=0.0, high=1.0, unit="kg")
    planform = 0.78 * length_m * width_m
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=mass_kg / density_kgpm3,
        drag_area_m2=PLATE_DRAG * planform,
        plate_area_m2=planform,
    )


def soft_body(
    *, length_m: float, width_m: float, mass_kg: float, density_kgpm3: float = 2500.0
) -> TowedBody:
    """Return the body of a fly, hoochie, tube, worm or spinner: drag and a little weight.

    Parameters
    ----------
    length_m, width_m : float
        Length and width, m.
    mass_kg : float
        Mass with hooks, kg.
    density_kgpm3 : float
        Mean density with hook and bead, kg/m3.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If the measures cannot be a lure's.
    """
    require_number("length_m", length_m, above=0.002, high=0.5, unit="m")
    require_number("width_m", width_m, above=0.0005, high=0.2, unit="m")
    require_number("mass_kg", mass_kg, above=0.0, high=0.5, unit="kg")
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=mass_kg / density_kgpm3,
        drag_area_m2=SOFT_DRAG * math.pi / 4 * width_m**2,
    )


def sinking_speed_mps(
    *, length_m: float, mass_kg: float, water: Water, broadside_coefficient: float = 1.1
) -> float:
    """Return how fast a sinking plug falls when the boat stops.

    Parameters
    ----------
    length_m, mass_kg : float
        Length, m, and mass, kg, of the plug.
    water : Water
        Density and viscosity.
    broadside_coefficient : float
        Drag coefficient of a cylinder broadside (Hoerner 1965, ch. 3).

    Returns
    -------
    float
        Terminal speed, m/s; negative rises.
    """
    body = plug_body(length_m=length_m, mass_kg=mass_kg, lip="none")
    weight = (body.mass_kg - body.volume_m3 * water.density_kgpm3) * GRAVITY_MPS2
    area = PLUG_FULLNESS * PLUG_GIRTH_RATIO * length_m**2
    speed = math.sqrt(2 * abs(weight) / (water.density_kgpm3 * broadside_coefficient * area))
    return math.copysign(speed, weight)
