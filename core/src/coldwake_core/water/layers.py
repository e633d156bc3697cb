"""What the layers of a lake say: thermocline, stability, and what the wind can tilt."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Final, Literal

from ..checks import require_number
from ..constants import GRAVITY_MPS2
from ..errors import InvalidInputError
from .fresh import density_kgpm3

AIR_DENSITY_KGPM3: Final = 1.22
DRAG: Final = 1.3e-3
"""Of wind at 10 m on water (Large & Pond 1981, from memory)."""
LEAST_STEP_KGPM3PM: Final = 0.02
"""A density gradient under this is no thermocline, kg/m3/m: about 0.15 degrees a metre at 15
degrees (judged; Read et al. 2011 take 0.1 for a metalimnion's edge)."""
MOST_READINGS: Final = 500

Profile = Sequence[tuple[float, float]]
"""(depth, m; temperature, degrees Celsius), from the surface down."""


def check_profile(profile: Profile, *, field: str = "profile") -> tuple[tuple[float, float], ...]:
    """Return a profile that runs from the surface down.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius.
    field : str
        Name to use in an error.

    Returns
    -------
    tuple of (float, float)

    Raises
    ------
    InvalidInputError
        If there are too few or too many readings, one cannot be, or a depth does not lie below the
        one before.
    """
    if not 1 <= len(profile) <= MOST_READINGS:
        raise InvalidInputError(field, len(profile), f"1 to {MOST_READINGS} readings")
    checked: list[tuple[float, float]] = []
    for index, (depth, temperature) in enumerate(profile):
        where = f"{field}[{index}]"
        require_number(f"{where}.depth_m", depth, low=0.0, high=300.0, unit="m")
        require_number(f"{where}.temperature_degc", temperature, low=-1.0, high=40.0, unit="°C")
        if checked and depth <= checked[-1][0]:
            raise InvalidInputError(
                f"{where}.depth_m", depth,
                "deeper than the reading before it: a profile runs from the surface down, each "
                "depth once",
            )
        checked.append((depth, temperature))
    return tuple(checked)


def temperature_at(profile: Profile, depth_m: float) -> float:
    """Return the temperature at a depth, linear between readings and level beyond them.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius, in order of depth.
    depth_m : float
        Where, m.

    Returns
    -------
    float
        Degrees Celsius.
    """
    if depth_m <= profile[0][0]:
        return profile[0][1]
    for (z0, t0), (z1, t1) in pairwise(profile):
        if depth_m <= z1:
            return t0 + (t1 - t0) * (depth_m - z0) / (z1 - z0)
    return profile[-1][1]


def thermocline_m(profile: Profile) -> float | None:
    """Return the depth where density changes fastest.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius, in order of depth.

    Returns
    -------
    float or None
        Depth, m; None where the water is mixed.

    Notes
    -----
    The steepest step between two readings, its middle moved toward the steeper neighbour (weights
    by the neighbouring gradients, as Read et al. do).

    References
    ----------
    Read, J.S. et al. (2011). Derivation of lake mixing and stratification indices from
    high-resolution lake buoy data. Environ. Model. Softw. 26, 1325-1336.
    """
    if len(profile) < 2:
        return None
    rho = [density_kgpm3(t) for _, t in profile]
    z = [depth for depth, _ in profile]
    steps = [(rho[i + 1] - rho[i]) / (z[i + 1] - z[i]) for i in range(len(z) - 1)]
    steepest = max(range(len(steps)), key=lambda i: steps[i])
    if steps[steepest] < LEAST_STEP_KGPM3PM:
        return None
    middle = [0.5 * (z[i] + z[i + 1]) for i in range(len(steps))]
    if not 0 < steepest < len(steps) - 1:
        return middle[steepest]
    below = (middle[steepest + 1] - middle[steepest]) / (steps[steepest + 1] - steps[steepest])
    above = (middle[steepest] - middle[steepest - 1]) / (steps[steepest] - steps[steepest - 1])
    if below == above or not (math.isfinite(below) and math.isfinite(above)):
        return middle[steepest]
    return (
        z[steepest + 1] * (below / (below - above)) - z[steepest] * (above / (below - above))
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class Bowl:
    """A lake's shape, as far as its layers need it: a bowl of a known depth and surface.

    Parameters
    ----------
    deepest_m : float
        Greatest depth, m.
    area_m2 : float
        Surface, m2.
    shape : float
        Area shrinks as (1 - z / deepest) to this power: 1 for a cone's cross-section cut straight
        (a paraboloid), 2 for a cone, 0 for straight walls.
    """

    deepest_m: float
    area_m2: float
    shape: float = 1.0

    def area_at_m2(self, depth_m: float) -> float:
        """Return the area at a depth, m2."""
        left = max(1.0 - depth_m / self.deepest_m, 0.0)
        return self.area_m2 * float(left**self.shape) if self.shape else self.area_m2

    @property
    def centre_m(self) -> float:
        """Depth of the middle of its volume, m: the integral of z over area is a beta function."""
        return self.deepest_m / (self.shape + 2.0)

    @property
    def volume_m3(self) -> float:
        """Its volume, m3."""
        return self.area_m2 * self.deepest_m / (self.shape + 1.0)


def schmidt_stability_jpm2(profile: Profile, bowl: Bowl) -> float:
    """Return the work a square metre that would mix the whole lake.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius, in order of depth.
    bowl : Bowl
        The lake's shape.

    Returns
    -------
    float
        J/m2, 0 for a mixed lake.

    Notes
    -----
    g / A0 times the integral of (z - zv) (rho - mean rho) A dz, in 400 slices.

    References
    ----------
    .. [1] Schmidt, W. (1928). Ueber die Temperatur- und Stabilitaetsverhaeltnisse von Seen.
       Geogr. Ann. 10, 145-177.
    .. [2] Idso, S.B. (1973). On the concept of lake stability. Limnol. Oceanogr. 18, 681-683.
    """
    count = 400
    step = bowl.deepest_m / count
    z = [(i + 0.5) * step for i in range(count)]
    rho = [density_kgpm3(temperature_at(profile, depth)) for depth in z]
    area = [bowl.area_at_m2(depth) for depth in z]
    volume = math.fsum(area)
    mean = math.fsum(r * a for r, a in zip(rho, area, strict=True)) / volume
    centre = math.fsum(d * a for d, a in zip(z, area, strict=True)) / volume
    moment = math.fsum(
        (d - centre) * (r - mean) * a for d, r, a in zip(z, rho, area, strict=True)
    )
    return GRAVITY_MPS2 * moment * step / bowl.area_m2


Tilt = Literal["mixed", "wells_up", "tilts", "firm"]


@dataclass(frozen=True, slots=True, kw_only=True)
class WindTilt:
    """What a wind does to a layered lake.

    Parameters
    ----------
    wedderburn, lake_number : float or None
        Under 1 the lower water comes up at the windward end; None without layers.
    period_s : float or None
        Time of the layer's swing from end to end and back, s.
    lean_m : float
        How far the layer leans between its middle and an end, m.
    verdict : {'mixed', 'wells_up', 'tilts', 'firm'}
        In one word.
    """

    wedderburn: float | None
    lake_number: float | None
    period_s: float | None
    lean_m: float
    verdict: Tilt


def wind_tilt(profile: Profile, bowl: Bowl, *, wind_mps: float, fetch_m: float) -> WindTilt:
    """Return what a steady wind does to the layers of a lake.

    Parameters
    ----------
    profile : sequence of (float, float)
        Depth, m, and temperature, degrees Celsius, in order of depth.
    bowl : Bowl
        The lake's shape.
    wind_mps : float
        Wind at 10 m, m/s.
    fetch_m : float
        Open water along the wind, m.

    Returns
    -------
    WindTilt

    Notes
    -----
    Two layers, parted at the thermocline, each with the mean density of its water. Wedderburn
    number g' h1^2 / (u*^2 L) [1]_; Lake number St zt / (rho u*^2 sqrt(A0) zv) [2]_, with zv the
    depth of the middle of the volume and the thermocline for both edges of the metalimnion. The
    lean at an end is u*^2 L / (2 g' h1), that of a two-layer rectangle in balance with the wind,
    which takes a quarter of the period to come about.

    References
    ----------
    .. [1] Imberger, J. & Patterson, J.C. (1990). Physical limnology. Adv. Appl. Mech. 27, 303-475.
    .. [2] Read, J.S. et al. (2011). Derivation of lake mixing and stratification indices from
       high-resolution lake buoy data. Environ. Model. Softw. 26, 1325-1336.
    """
    require_number("wind_mps", wind_mps, low=0.0, high=60.0, unit="m/s")
    require_number("fetch_m", fetch_m, above=0.0, high=500_000.0, unit="m")
    depth = thermocline_m(profile)
    if depth is None or not 0.0 < depth < bowl.deepest_m:
        return WindTilt(
            wedderburn=None, lake_number=None, period_s=None, lean_m=0.0, verdict="mixed"
        )
    upper = _mean_density(profile, bowl, 0.0, depth)
    lower = _mean_density(profile, bowl, depth, bowl.deepest_m)
    reduced = GRAVITY_MPS2 * max(lower - upper, 1e-9) / lower
    under = bowl.deepest_m - depth
    period = 2.0 * fetch_m / math.sqrt(reduced * depth * under / bowl.deepest_m)
    friction2 = AIR_DENSITY_KGPM3 * DRAG * wind_mps**2 / upper
    if friction2 == 0.0:
        return WindTilt(
            wedderburn=None, lake_number=None, period_s=period, lean_m=0.0, verdict="firm"
        )
    wedderburn = reduced * depth**2 / (friction2 * fetch_m)
    stability = schmidt_stability_jpm2(profile, bowl)
    lake = stability * depth / (lower * friction2 * math.sqrt(bowl.area_m2) * bowl.centre_m)
    lean = friction2 * fetch_m / (2.0 * reduced * depth)
    verdict: Tilt = "wells_up" if wedderburn < 1.0 else "tilts" if wedderburn < 10.0 else "firm"
    return WindTilt(
        wedderburn=wedderburn, lake_number=lake, period_s=period, lean_m=min(lean, depth),
        verdict=verdict,
    )


def _mean_density(profile: Profile, bowl: Bowl, top_m: float, base_m: float) -> float:
    step = (base_m - top_m) / 100
    z = [top_m + (i + 0.5) * step for i in range(100)]
    area = [bowl.area_at_m2(depth) for depth in z]
    return math.fsum(
        density_kgpm3(temperature_at(profile, d)) * a for d, a in zip(z, area, strict=True)
    ) / math.fsum(area)
