"""What is pulled at the end of a line: lures, attractors, weights, and the force each makes."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final, Literal

from ..checks import require_number
from ..constants import GRAVITY_MPS2, LEAD_DENSITY_KGPM3
from ..errors import InvalidInputError
from ..water.fresh import Water
from . import assumed
from .drag import SPHERE_VALID_TO_RE, sphere_drag_coefficient

Lip = Literal["none", "small", "medium", "deep"]

LIP_AREA_PER_GIRTH: Final[dict[str, float]] = {
    "none": 0.0, "small": 0.5, "medium": 1.0, "deep": 2.0,
}
"""Area of a diving lip over width times height of the plug: judged from the shapes."""

# One set for every plug, spoon and soft lure; no lure has a constant of its own.
PLUG_GIRTH_RATIO: Final = assumed.PLUG_GIRTH.value
PLUG_FULLNESS: Final = assumed.PLUG_FULLNESS.value
_SWAY: Final = math.radians(assumed.BLADE_SWAY_DEG.value)
_MEAN_COS: Final = math.sin(_SWAY) / _SWAY
"""Mean over the swing of how upright a swaying blade's force stands."""
_SWING_STEPS: Final = 64
BallShape = Literal["round", "torpedo", "disc"]
BALL_FRONT: Final[dict[str, tuple[float, float]]] = {"torpedo": (0.55, 0.25), "disc": (0.50, 0.30)}
"""Frontal area over that of a round ball of the same mass, and its drag coefficient with fin: a
body three diameters long, a thick disc edge-on (Hoerner 1965, ch. 3, 6: 0.1-0.3; areas judged)."""


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
class Plate:
    """A blade or spoon that planes on its own lift, towed by its nose.

    Parameters
    ----------
    area_m2 : float
        Planform, m2.
    linear : float
        Normal force coefficient: this times ``sin a cos a``, with ``a`` the angle of attack.
    crossflow : float or None
        And this times ``sin a`` squared; None takes ``linear sin a`` for the whole, which is a
        plate between slender and wide.
    lever : float
        Distance of the weight from the nose over that of the lift's centre: the share of its weight
        that the lift carries while it rides flat.

    Notes
    -----
    The moment of the normal force about the nose balances that of the weight: ``N = lever W cos a``
    with ``N`` of a blade ``q A (linear sin a cos a + crossflow sin a ** 2)``; the lift is
    ``N cos a``. Fast, it rides flat and the lift carries ``lever`` of the weight; slow, it hangs by
    its nose and carries none. The added drag of the angle (``N sin a``) is left out: it is under a
    hundredth of the rest while the plate works.

    References
    ----------
    Jones, R.T. (1946). Properties of low-aspect-ratio pointed wings. NACA Rep. 835: slope pi/2 AR.
    Hoerner, S.F., Borst, H.V. (1985). Fluid-Dynamic Lift, ch. 17: cross flow. From memory.
    """

    area_m2: float
    linear: float
    crossflow: float | None
    lever: float

    def normal_coefficient(self, angle_rad: float) -> float:
        """Return the normal force coefficient on planform.

        Parameters
        ----------
        angle_rad : float
            Angle of attack, rad, 0 to pi/2.

        Returns
        -------
        float
        """
        s = math.sin(angle_rad)
        if self.crossflow is None:
            return self.linear * s
        return s * (self.linear * math.cos(angle_rad) + self.crossflow * s)

    def carries(self, weight_n: float, pressure_pa: float, *, lever_factor: float = 1.0) -> float:
        """Return the share of its weight that its lift carries.

        Parameters
        ----------
        weight_n : float
            Weight in water, N, > 0.
        pressure_pa : float
            Dynamic pressure, Pa, >= 0.
        lever_factor : float
            Multiplies the lever; used to carry doubt.

        Returns
        -------
        float
            0 at rest, toward ``lever`` when fast.
        """
        lever = self.lever * lever_factor
        force = pressure_pa * self.area_m2
        if force <= 0.0 or lever <= 0.0:
            return 0.0
        wanted = lever * weight_n / force
        # Newton on the tangent of the angle, from above: the left side is convex and rising.
        tangent = wanted / self.linear
        if self.crossflow is not None:
            for _ in range(30):
                root = math.sqrt(1.0 + tangent * tangent)
                miss = tangent * (self.linear + self.crossflow * tangent) - wanted * root
                step = miss / (
                    self.linear + 2.0 * self.crossflow * tangent - wanted * tangent / root
                )
                tangent -= step
                if abs(step) <= 1e-12 * (1.0 + tangent):
                    break
        return lever / (1.0 + tangent * tangent)


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
    plate : Plate or None
        The lift of a blade or spoon.
    """

    mass_kg: float
    volume_m3: float
    drag_area_m2: float
    down_area_m2: float = 0.0
    plate: Plate | None = None

    def load(
        self, speed_mps: float, water: Water, *, drag_factor: float = 1.0, lift_factor: float = 1.0,
        volume_factor: float = 1.0, lever_factor: float = 1.0,
    ) -> EndLoad:
        """Return the pull on the line at a speed.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s, >= 0.
        water : Water
            Density and viscosity.
        drag_factor, lift_factor, volume_factor, lever_factor : float
            Multiply drag, lip force, the volume of a plug and the weight that a plate's lift
            carries; used to carry doubt.

        Returns
        -------
        EndLoad
        """
        q = 0.5 * water.density_kgpm3 * speed_mps * speed_mps
        volume = self.volume_m3 if self.plate is not None else self.volume_m3 * volume_factor
        weight = (self.mass_kg - volume * water.density_kgpm3) * GRAVITY_MPS2
        back = q * self.drag_area_m2 * drag_factor
        down = weight + q * self.down_area_m2 * lift_factor
        if self.plate is not None and weight > 0.0:
            down -= weight * self.plate.carries(weight, q, lever_factor=lever_factor)
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

    def is_beyond_law(self, speed_mps: float, water: Water) -> bool:
        """Return whether a round ball goes faster than its drag is known for.

        Parameters
        ----------
        speed_mps : float
            Speed through water, m/s.
        water : Water
            Density and viscosity.

        Returns
        -------
        bool
            Past a Reynolds number of 3e5 its drag falls, by how much nobody can say of a rough
            ball: it runs deeper than is computed.
        """
        reynolds = speed_mps * self.diameter_m / water.viscosity_m2ps
        return self.shape == "round" and reynolds > SPHERE_VALID_TO_RE

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
            reynolds = speed_mps * diameter / water.viscosity_m2ps
            # Past the end of the law its last value is held, and `is_beyond_law` says so.
            coefficient = sphere_drag_coefficient(min(reynolds, SPHERE_VALID_TO_RE))
        else:
            front, coefficient = BALL_FRONT[self.shape]
        q = 0.5 * water.density_kgpm3 * speed_mps * speed_mps
        return EndLoad(
            drag_factor * q * coefficient * front * math.pi / 4 * diameter**2, weight
        )


def plug_volume_m3(*, length_m: float, width_m: float) -> float:
    """Return the volume of a plug as thick as it is wide.

    Parameters
    ----------
    length_m, width_m : float
        Length without lip and greatest width, m.

    Returns
    -------
    float
        m3.
    """
    return PLUG_FULLNESS * math.pi / 6 * length_m * width_m**2


def plug_body(
    *, length_m: float, mass_kg: float, lip: Lip, width_m: float | None = None
) -> TowedBody:
    """Return the body of a plug.

    Parameters
    ----------
    length_m : float
        Length without lip, m.
    mass_kg : float
        Mass with hooks, kg; against its volume this decides whether it floats.
    lip : {'none', 'small', 'medium', 'deep'}
        Size of the diving lip.
    width_m : float, optional
        Greatest width, m; that of a slim minnow (a fifth of the length) when left out. It is taken
        to be as high as wide.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If length, width or mass cannot be a plug's.

    References
    ----------
    Hoerner, S.F. (1965). Fluid-Dynamic Drag, ch. 3. From memory.
    """
    require_number("length_m", length_m, above=0.005, high=0.5, unit="m")
    require_number("mass_kg", mass_kg, above=0.0, high=0.5, unit="kg")
    if lip not in LIP_AREA_PER_GIRTH:
        raise InvalidInputError("lip", lip, "one of " + ", ".join(LIP_AREA_PER_GIRTH))
    width = PLUG_GIRTH_RATIO * length_m if width_m is None else width_m
    require_number("width_m", width, above=0.0005, high=length_m, unit="m")
    lip_force = assumed.LIP_FORCE.value * LIP_AREA_PER_GIRTH[lip] * width**2
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=plug_volume_m3(length_m=length_m, width_m=width),
        drag_area_m2=assumed.PLUG_DRAG.value * math.pi / 4 * width**2 + lip_force,
        down_area_m2=lip_force,
    )


def _planform_m2(length_m: float, width_m: float, mass_kg: float) -> float:
    require_number("length_m", length_m, above=0.005, high=0.5, unit="m")
    require_number("width_m", width_m, above=0.001, high=0.3, unit="m")
    require_number("mass_kg", mass_kg, above=0.0, high=1.0, unit="kg")
    return assumed.PLANFORM.value * length_m * width_m


BRASS_DENSITY_KGPM3: Final = 8500.0
"""Blades and spoons: handbook value of the metal."""
SOFT_DENSITY_KGPM3: Final = 2500.0
"""Mean of hook, bead and dressing of a soft lure (judged)."""


def spoon_body(*, length_m: float, width_m: float, mass_kg: float) -> TowedBody:
    """Return the body of a spoon: a plate that wobbles but keeps its course.

    Parameters
    ----------
    length_m, width_m : float
        Length and greatest width, m.
    mass_kg : float
        Mass, kg.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If the measures cannot be a spoon's.

    References
    ----------
    Hoerner, S.F. (1965). Fluid-Dynamic Drag, ch. 3. From memory.
    """
    planform = _planform_m2(length_m, width_m, mass_kg)
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=mass_kg / BRASS_DENSITY_KGPM3,
        drag_area_m2=assumed.PLATE_DRAG.value * planform,
        plate=Plate(
            area_m2=planform, linear=assumed.PLATE_SLOPE.value, crossflow=None,
            lever=assumed.PLATE_LEVER.value,
        ),
    )


@lru_cache(maxsize=512)
def blade_body(*, length_m: float, width_m: float, mass_kg: float) -> TowedBody:
    """Return the body of a dodger or other attractor that swings from side to side.

    Parameters
    ----------
    length_m, width_m : float
        Length and greatest width, m.
    mass_kg : float
        Mass, kg.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If the measures cannot be a blade's.

    Notes
    -----
    A flat plate of low aspect ratio ``AR = width**2 / planform``: slope ``pi/2 AR`` (Jones 1946)
    and cross flow. The weight acts at mid-length, and so does the lift, since a swinging blade is
    past its stall; the lift stands aside while the blade sways, so its mean upward part is taken.
    The drag is the mean over the swing of the plate's normal force times the sine of its angle,
    with edges and swivels added. See assumed.py for each constant and its source.
    """
    planform = _planform_m2(length_m, width_m, mass_kg)
    plate = Plate(
        area_m2=planform, linear=math.pi / 2 * width_m**2 / planform,
        crossflow=assumed.BLADE_CROSSFLOW.value,
        lever=0.5 / assumed.BLADE_CENTRE.value * _MEAN_COS,
    )
    swing = [
        _SWAY * math.sin(0.5 * math.pi * (step + 0.5) / _SWING_STEPS)
        for step in range(_SWING_STEPS)
    ]
    induced = math.fsum(
        plate.normal_coefficient(angle) * math.sin(angle) for angle in swing
    ) / _SWING_STEPS
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=mass_kg / BRASS_DENSITY_KGPM3,
        drag_area_m2=(assumed.BLADE_FRICTION.value + induced) * planform,
        plate=plate,
    )


def soft_body(
    *, length_m: float, width_m: float, mass_kg: float
) -> TowedBody:
    """Return the body of a fly, hoochie, tube, worm or spinner: drag and a little weight.

    Parameters
    ----------
    length_m, width_m : float
        Length and width, m.
    mass_kg : float
        Mass with hooks, kg.

    Returns
    -------
    TowedBody

    Raises
    ------
    InvalidInputError
        If the measures cannot be a lure's.

    References
    ----------
    Hoerner, S.F. (1965). Fluid-Dynamic Drag, ch. 3. From memory.
    """
    require_number("length_m", length_m, above=0.002, high=0.5, unit="m")
    require_number("width_m", width_m, above=0.0005, high=0.2, unit="m")
    require_number("mass_kg", mass_kg, above=0.0, high=0.5, unit="kg")
    return TowedBody(
        mass_kg=mass_kg,
        volume_m3=mass_kg / SOFT_DENSITY_KGPM3,
        drag_area_m2=assumed.SOFT_DRAG.value * math.pi / 4 * width_m**2,
    )


def sinking_speed_mps(
    *, length_m: float, mass_kg: float, water: Water, width_m: float | None = None,
    broadside_coefficient: float = 1.1,
) -> float:
    """Return how fast a sinking plug falls when the boat stops.

    Parameters
    ----------
    length_m, mass_kg : float
        Length, m, and mass, kg, of the plug.
    water : Water
        Density and viscosity.
    width_m : float, optional
        Its width, m; that of a slim minnow when left out.
    broadside_coefficient : float
        Drag coefficient of a cylinder broadside (Hoerner 1965, ch. 3).

    Returns
    -------
    float
        Terminal speed, m/s; negative rises.

    References
    ----------
    Hoerner, S.F. (1965). Fluid-Dynamic Drag, ch. 3. From memory.
    """
    body = plug_body(length_m=length_m, mass_kg=mass_kg, lip="none", width_m=width_m)
    weight = (body.mass_kg - body.volume_m3 * water.density_kgpm3) * GRAVITY_MPS2
    width = PLUG_GIRTH_RATIO * length_m if width_m is None else width_m
    area = PLUG_FULLNESS * width * length_m
    speed = math.sqrt(2 * abs(weight) / (water.density_kgpm3 * broadside_coefficient * area))
    return math.copysign(speed, weight)
