"""One day of the water column: sun, surface, wind and cooling, step by step."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

import numpy as np

from ..errors import InvalidInputError
from ..water.layers import AIR_DENSITY_KGPM3
from ..water.weather import STEP_S
from .heat import (
    BULK,
    Array,
    absorption,
    albedo,
    clear_sky_wpm2,
    cloud_factor,
    surface_heat_wpm2,
)
from .mixing import DENSITY_KGPM3, Column

HEAT_JPKGK: Final = 4187.0
"""Specific heat of fresh water about 12 degrees Celsius (from memory)."""
DIFFUSIVITY_M2PS: Final = 1.41e-7
"""Thermal diffusivity of still water about 12 degrees Celsius (from memory)."""
_EARTH_RADPS: Final = 7.292115e-5


@dataclass(frozen=True, slots=True, kw_only=True)
class Air:
    """The weather over a column, step by step.

    Parameters
    ----------
    elevation_deg : ndarray, (steps,)
        Height of the sun, degrees.
    air_degc, humidity, cloud : ndarray, (members, steps) or (steps,)
        Air, degrees Celsius; relative humidity and cloud cover, 0 to 1.
    wind_east_mps, wind_north_mps : ndarray, (members, steps) or (steps,)
        Where the wind blows to, m/s at 10 m.
    """

    elevation_deg: Array
    air_degc: Array
    humidity: Array
    cloud: Array
    wind_east_mps: Array
    wind_north_mps: Array


@dataclass(frozen=True, slots=True, kw_only=True)
class ColumnRun:
    """What became of the columns.

    Parameters
    ----------
    temperature_degc : ndarray, (steps + 1, members, layers)
        Temperature of each layer, the start included.
    mixed_m : ndarray, (steps + 1, members)
        Depth of the mixed part, m.
    heat_in_jpm2 : ndarray, (members,)
        Heat that went in by the end, J/m2.
    sun_wpm2 : ndarray, (steps, members)
        Sunlight on the water, W/m2.
    """

    temperature_degc: Array
    mixed_m: Array
    heat_in_jpm2: Array
    sun_wpm2: Array


def layers(deepest_m: float, count: int = 100) -> Array:
    """Return the thickness of layers that are thin under the surface, m.

    Parameters
    ----------
    deepest_m : float
        Depth of the water, m.
    count : int
        How many layers.

    Returns
    -------
    ndarray, (count,)
        From the surface down; they grow by a constant ratio from 10 cm, or are all alike where the
        water is so shallow that they are thinner than that.
    """
    if deepest_m <= 0.1 * count:
        return np.full(count, deepest_m / count)
    low, high = 1.0, 2.0
    for _ in range(80):
        ratio = 0.5 * (low + high)
        total = 0.1 * (ratio**count - 1.0) / (ratio - 1.0) if ratio > 1.0 else 0.1 * count
        low, high = (ratio, high) if total < deepest_m else (low, ratio)
    thickness = 0.1 * ratio ** np.arange(count)
    return np.asarray(thickness * (deepest_m / thickness.sum()))


def run_column(
    start_degc: Array, thickness_m: Array, air: Air, *, secchi_m: float, latitude_deg: float,
    step_s: float = STEP_S,
) -> ColumnRun:
    """Follow an ensemble of columns through a day.

    Parameters
    ----------
    start_degc : ndarray, (members, layers)
        Temperature at the start, degrees Celsius.
    thickness_m : ndarray, (layers,)
        Thickness of the layers, m.
    air : Air
        The weather, one value a step.
    secchi_m : float
        Secchi depth, m.
    latitude_deg : float
        For the turning of the earth, degrees.
    step_s : float
        Length of a step, s.

    Returns
    -------
    ColumnRun

    Raises
    ------
    InvalidInputError
        If shapes do not agree or a temperature is not finite.

    Notes
    -----
    One dimension: no inflow, no wind across the lake (see ``water.wind``), no ice; the bed takes
    what light reaches it and gives it to the lowest layer. Each step: light is absorbed, the
    surface gains or loses, heat is conducted (implicitly), heavy water sinks, the wind drives the
    mixed part, and both Richardson numbers are brought back to their bounds. Nothing is fitted to
    a lake.

    References
    ----------
    .. [1] Price, J.F., Weller, R.A. & Pinkel, R. (1986). Diurnal cycling: observations and models
       of the upper ocean response to diurnal heating, cooling, and wind mixing. J. Geophys. Res.
       91, 8411-8427.
    .. [2] Paulson, C.A. & Simpson, J.J. (1977). J. Phys. Oceanogr. 7, 952-956.
    """
    members, count = start_degc.shape
    if thickness_m.shape != (count,):
        raise InvalidInputError("thickness_m", thickness_m.shape, f"one for each of {count} layers")
    if not np.isfinite(start_degc).all():
        raise InvalidInputError("start_degc", "not finite", "a temperature for every layer")
    steps = len(air.elevation_deg)
    air_degc, humidity, cloud, east, north = (
        np.broadcast_to(np.asarray(field, float), (members, steps))
        for field in (
            air.air_degc, air.humidity, air.cloud, air.wind_east_mps, air.wind_north_mps
        )
    )
    wind = np.hypot(east, north)
    sun = clear_sky_wpm2(air.elevation_deg) * cloud_factor(cloud)
    sun = sun * (1.0 - albedo(air.elevation_deg, cloud))
    edges = np.concatenate([[0.0], np.cumsum(thickness_m)])
    left = absorption(secchi_m).left(edges)
    left[-1] = 0.0
    taken = left[:-1] - left[1:]
    heat = DENSITY_KGPM3 * HEAT_JPKGK * thickness_m
    conduct = _conduction(thickness_m, step_s)
    column = Column(
        thickness_m=thickness_m, temperature_degc=start_degc.astype(float).copy(),
        east_mps=np.zeros((members, count)), north_mps=np.zeros((members, count)),
    )
    coriolis = 2.0 * _EARTH_RADPS * math.sin(math.radians(latitude_deg))
    found = np.empty((steps + 1, members, count))
    mixed = np.empty((steps + 1, members))
    found[0], mixed[0] = column.temperature_degc, thickness_m[0]
    heat_in = np.zeros(members)
    drag = AIR_DENSITY_KGPM3 * BULK
    for step in range(steps):
        surface = surface_heat_wpm2(
            column.temperature_degc[:, 0], air_degc=air_degc[:, step], humidity=humidity[:, step],
            cloud=cloud[:, step], wind_mps=wind[:, step],
        )
        heat_in += step_s * (surface + sun[:, step])
        column.temperature_degc += step_s * sun[:, step, None] * taken / heat
        column.temperature_degc[:, 0] += step_s * surface / heat[0]
        column.temperature_degc = column.temperature_degc @ conduct
        deep = column.convect()
        column.blow(
            deep, stress_east_pa=drag * wind[:, step] * east[:, step],
            stress_north_pa=drag * wind[:, step] * north[:, step], coriolis_ps=coriolis,
            step_s=step_s,
        )
        deep = column.entrain(deep)
        column.shear()
        found[step + 1], mixed[step + 1] = column.temperature_degc, edges[1:][deep]
    return ColumnRun(
        temperature_degc=found, mixed_m=mixed, heat_in_jpm2=heat_in, sun_wpm2=sun.T
    )


def _conduction(thickness_m: Array, step_s: float) -> Array:
    """Return the matrix that conducts heat for one step, for rows of temperature."""
    count = len(thickness_m)
    apart = 0.5 * (thickness_m[:-1] + thickness_m[1:])
    flow = DIFFUSIVITY_M2PS * step_s / apart
    matrix = np.eye(count)
    for i, share in enumerate(flow):
        matrix[i, i] += share / thickness_m[i]
        matrix[i, i + 1] -= share / thickness_m[i]
        matrix[i + 1, i + 1] += share / thickness_m[i + 1]
        matrix[i + 1, i] -= share / thickness_m[i + 1]
    return np.asarray(np.linalg.inv(matrix).T)
