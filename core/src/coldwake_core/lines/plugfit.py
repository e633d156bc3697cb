"""Plugs fitted to a few points "line out - depth", as printed on a package or seen on the water."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError
from ..water.fresh import Water
from .bodies import Lip, TowedBody, plug_body
from .linerig import LineRig
from .materials import material

MOST_POINTS: Final = 5
_TIP_M: Final = 1.0
_PRIOR_LN: Final = (0.7, 0.3)
"""Standard deviations of the logarithms of lip size and of body drag before any point: lips differ
by a factor of two either way from the generic ones, bodies by a third (judged)."""
_SPREAD_M: Final = 0.15
_SPREAD_SHARE: Final = 0.05
"""A printed depth is good to half a foot and one part in twenty (judged)."""
_STEP: Final = 0.05
_ROUNDS: Final = 25


@dataclass(frozen=True, slots=True, kw_only=True)
class DivePoint:
    """A depth that a plug is said to reach.

    Parameters
    ----------
    out_m : float
        Line out, m.
    depth_m : float
        Depth it runs at, m.
    material_id : str
        Line it was found with.
    speed_mps : float
        Speed through water, m/s.
    """

    out_m: float
    depth_m: float
    material_id: str = "mono-10"
    speed_mps: float = 0.9

    def check(self) -> None:
        """Raise InvalidInputError unless a plug could run there."""
        require_number("out_m", self.out_m, above=1.0, high=300.0, unit="m")
        require_number("depth_m", self.depth_m, above=0.0, high=60.0, unit="m")
        require_number("speed_mps", self.speed_mps, low=0.2, high=4.0, unit="m/s")
        material(self.material_id, field="material_id")
        if self.depth_m >= self.out_m:
            raise InvalidInputError(
                "depth_m", round(self.depth_m, 2), f"less than the {self.out_m:.1f} m of line out",
                high=self.out_m,
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class FittedPlug:
    """A plug's body as its points have it.

    Parameters
    ----------
    body : TowedBody
        The body.
    lip_factor, drag_factor : float
        Against the generic plug of that size and lip.
    lip_spread : float
        Standard deviation of the lip's force that is left, relative.
    misses_m : tuple of float
        Depth of each point less the fitted plug's, m.
    """

    body: TowedBody
    lip_factor: float
    drag_factor: float
    lip_spread: float
    misses_m: tuple[float, ...]


@lru_cache(maxsize=256)
def fit_plug(
    *, length_m: float, mass_kg: float, lip: Lip, points: tuple[DivePoint, ...],
    width_m: float | None = None,
) -> FittedPlug:
    """Return a plug's body fitted to points on its depth curve.

    Parameters
    ----------
    length_m, mass_kg : float
        Length, m, and mass, kg.
    lip : {'none', 'small', 'medium', 'deep'}
        The generic lip it starts from; a lipless plug has nothing to fit.
    points : tuple of DivePoint, length 1 to 5
        What it is said to do.
    width_m : float, optional
        Greatest width, m; that of a slim minnow when left out.

    Returns
    -------
    FittedPlug

    Raises
    ------
    InvalidInputError
        If there are no points or too many, or a point cannot be.

    Notes
    -----
    Two numbers are found, the logarithms of lip size and body drag against the generic plug's, by
    Gauss-Newton with halved steps, Gaussian priors and points read to half a foot and 5 %. One
    point speaks mostly of the lip; the rest stays where physics put it.
    """
    if not 1 <= len(points) <= MOST_POINTS:
        raise InvalidInputError("points", len(points), f"1 to {MOST_POINTS} points")
    if lip == "none":
        raise InvalidInputError("lip", lip, "small, medium or deep: without one nothing dives")
    for point in points:
        point.check()
    generic = plug_body(length_m=length_m, mass_kg=mass_kg, lip=lip, width_m=width_m)
    water = Water.at_degc(15.0)

    def depths(values: Sequence[float]) -> list[float]:
        body = _scaled(generic, lip=math.exp(values[0]), drag=math.exp(values[1]))
        return [_depth(body, point, water) for point in points]

    spreads = [math.hypot(_SPREAD_M, _SPREAD_SHARE * point.depth_m) for point in points]

    def cost(values: Sequence[float], found: Sequence[float]) -> float:
        return math.fsum(
            ((point.depth_m - depth) / spread) ** 2
            for point, depth, spread in zip(points, found, spreads, strict=True)
        ) + math.fsum((value / sd) ** 2 for value, sd in zip(values, _PRIOR_LN, strict=True))

    values, hessian = [0.0, 0.0], (0.0, 0.0, 0.0)
    found = depths(values)
    for _ in range(_ROUNDS):
        slopes = []
        for index in range(2):
            moved = list(values)
            moved[index] += _STEP
            slopes.append([(b - a) / _STEP for a, b in zip(found, depths(moved), strict=True)])
        step, hessian = _step(points, values, found, slopes, spreads)
        best = cost(values, found)
        for _ in range(6):
            tried = [values[0] + step[0], values[1] + step[1]]
            there = depths(tried)
            if cost(tried, there) < best:
                break
            step = (0.5 * step[0], 0.5 * step[1])
        else:
            break
        values, found = tried, there
        if max(abs(step[0]), abs(step[1])) < 1e-4:
            break
    a, b, d = hessian
    return FittedPlug(
        body=_scaled(generic, lip=math.exp(values[0]), drag=math.exp(values[1])),
        lip_factor=math.exp(values[0]), drag_factor=math.exp(values[1]),
        lip_spread=math.sqrt(d / (a * d - b * b)),
        misses_m=tuple(p.depth_m - depth for p, depth in zip(points, found, strict=True)),
    )


def _step(
    points: Sequence[DivePoint], values: Sequence[float], found: Sequence[float],
    slopes: Sequence[Sequence[float]], spreads: Sequence[float],
) -> tuple[tuple[float, float], tuple[float, float, float]]:
    """Gauss-Newton step of the two logarithms, and the curvature it was made with."""
    a, b, d = 1.0 / _PRIOR_LN[0] ** 2, 0.0, 1.0 / _PRIOR_LN[1] ** 2
    right = [-values[0] * a, -values[1] * d]
    for index, point in enumerate(points):
        s0, s1, weight = slopes[0][index], slopes[1][index], spreads[index] ** -2
        a, b, d = a + weight * s0 * s0, b + weight * s0 * s1, d + weight * s1 * s1
        miss = weight * (point.depth_m - found[index])
        right[0] += miss * s0
        right[1] += miss * s1
    determinant = a * d - b * b
    return (
        (d * right[0] - b * right[1]) / determinant, (a * right[1] - b * right[0]) / determinant,
    ), (a, b, d)


def _scaled(generic: TowedBody, *, lip: float, drag: float) -> TowedBody:
    """The lip's force pulls down and back alike (it stands near 45 degrees)."""
    bare = generic.drag_area_m2 - generic.down_area_m2
    return TowedBody(
        mass_kg=generic.mass_kg, volume_m3=generic.volume_m3,
        drag_area_m2=drag * bare + lip * generic.down_area_m2,
        down_area_m2=lip * generic.down_area_m2,
    )


def _depth(body: TowedBody, point: DivePoint, water: Water) -> float:
    rig = LineRig(
        stretches=((material(point.material_id), point.out_m),), bodies=(body,),
        tip_height_m=_TIP_M,
    )
    return rig.solve(point.speed_mps, water).place(point.out_m, picture=False).depth_m
