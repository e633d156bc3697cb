"""Legs to troll: along a depth contour, turnable, clear of closed water and hazards."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
import shapely
from contourpy import contour_generator
from numpy.typing import NDArray
from scipy.interpolate import RegularGridInterpolator
from scipy.ndimage import gaussian_filter1d
from shapely.geometry import LineString, Point, Polygon
from shapely.geometry.base import BaseGeometry
from shapely.ops import unary_union

from ..chart.features import CLOSED, Feature
from ..chart.grid import DepthGrid, GeoPoint, moved, offset_m
from ..checks import require_number
from ..errors import InvalidInputError

Array = NDArray[np.float64]

STEP_M: Final = 5.0
LEAST_LEG_M: Final = 150.0
"""A leg shorter than this is over before the lines are down (judged)."""
MOST_LEGS: Final = 6
SHORE_M: Final = 15.0
"""No leg comes nearer to land than this (judged)."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LegsWish:
    """What legs are wanted.

    Parameters
    ----------
    depth_m : float
        Depth of the bottom to follow, by the chart's own level, m.
    least_depth_m : float
        Water that is needed under the boat all along: the deepest lure and its clearance, m.
    radius_m : float
        Tightest turn that is safe for the spread, m.
    speed_mps : float
        Speed over ground, m/s.
    margin_m : float
        How far to keep from closed water, m.
    sun_deg : float or None
        Where the sun stands, degrees from north; None when it is down.
    wind_from_deg, wind_mps : float
        The wind: from where, degrees from north, and how much, m/s.
    weave_m : float
        How far to weave up and down the bank, m to either side; 0 to hold the contour.
    """

    depth_m: float
    least_depth_m: float
    radius_m: float
    speed_mps: float
    margin_m: float = 30.0
    sun_deg: float | None = None
    wind_from_deg: float = 0.0
    wind_mps: float = 0.0
    weave_m: float = 0.0

    def check(self) -> None:
        """Raise InvalidInputError unless there can be such legs."""
        require_number("depth_m", self.depth_m, above=0.0, high=300.0, unit="m")
        require_number("least_depth_m", self.least_depth_m, low=0.0, high=300.0, unit="m")
        require_number("radius_m", self.radius_m, low=5.0, high=500.0, unit="m")
        require_number("speed_mps", self.speed_mps, low=0.2, high=5.0, unit="m/s")
        require_number("margin_m", self.margin_m, low=0.0, high=2000.0, unit="m")
        require_number("wind_mps", self.wind_mps, low=0.0, high=60.0, unit="m/s")
        require_number("wind_from_deg", self.wind_from_deg, low=0.0, high=360.0)
        require_number("weave_m", self.weave_m, low=0.0, high=100.0, unit="m")
        if self.sun_deg is not None:
            require_number("sun_deg", self.sun_deg, low=0.0, high=360.0)
        if self.least_depth_m > self.depth_m:
            raise InvalidInputError(
                "least_depth_m", self.least_depth_m, "no deeper than the contour that is followed"
            )


@dataclass(frozen=True, slots=True, kw_only=True)
class Leg:
    """A leg.

    Parameters
    ----------
    places : tuple of GeoPoint
        From its start to its end.
    length_m, minutes : float
        How long it is, m, and takes, min.
    tightest_m : float
        Tightest curve on it, m.
    shallowest_m, deepest_m : float
        Depth of the bottom along it, m.
    across_sun : float
        Share of it within 45 degrees of across the sun, 0 to 1; 0 when the sun is down.
    into_wind : float
        Share of it within 45 degrees of straight into the wind, 0 to 1.
    why : str
        In words.
    """

    places: tuple[GeoPoint, ...]
    length_m: float
    minutes: float
    tightest_m: float
    shallowest_m: float
    deepest_m: float
    across_sun: float
    into_wind: float
    why: str


def contour_lines(grid: DepthGrid, depth_m: float) -> tuple[Array, ...]:
    """Return the contours of a depth.

    Parameters
    ----------
    grid : DepthGrid
        The chart.
    depth_m : float
        Depth, m.

    Returns
    -------
    tuple of ndarray, (points, 2)
        Each line's east and north, m from the middle of the first cell; closed ones end where they
        begin.
    """
    depths = _depths(grid)
    x = grid.cell_m * np.arange(depths.shape[1])
    y = grid.cell_m * np.arange(depths.shape[0])
    generator = contour_generator(x=x, y=y, z=np.ma.masked_invalid(depths))
    return tuple(np.asarray(line) for line in generator.lines(depth_m))


def shore_lines(grid: DepthGrid) -> tuple[Array, ...]:
    """Return where a chart's water ends: its shore, or the edge of what was sounded.

    Parameters
    ----------
    grid : DepthGrid
        The chart.

    Returns
    -------
    tuple of ndarray, (points, 2)
        Each line's east and north, m from the middle of the first cell.
    """
    wet = np.pad((~np.isnan(_depths(grid))).astype(float), 1)
    x = grid.cell_m * (np.arange(wet.shape[1]) - 1.0)
    y = grid.cell_m * (np.arange(wet.shape[0]) - 1.0)
    return tuple(np.asarray(line) for line in contour_generator(x=x, y=y, z=wet).lines(0.5))


def plan_legs(
    grid: DepthGrid, wish: LegsWish, features: Sequence[Feature] = ()
) -> tuple[Leg, ...]:
    """Return legs along a contour, the best first.

    Parameters
    ----------
    grid : DepthGrid
        The chart, at today's level.
    wish : LegsWish
        What is wanted.
    features : sequence of Feature
        What stands on the chart: closed water is kept out of by the margin, hazards by their berth.

    Returns
    -------
    tuple of Leg
        At most six.

    Raises
    ------
    InvalidInputError
        If there can be no such wish, or no stretch of the contour is left that is long enough.

    Notes
    -----
    The contour is taken at steps of 5 m and smoothed, more and more, until nothing on it is tighter
    than the radius; a weave is laid over it, as long as its waves need to be for the same. Then all
    is cut away that comes too near closed water, hazards or land, or is too shallow. Ranked by
    length, with a bonus for what runs across the sun and a malus, from 4 m/s of wind, for what
    runs across the wind, where a small boat is blown off its line.
    """
    wish.check()
    depths = _depths(grid)
    under = RegularGridInterpolator(
        (grid.cell_m * np.arange(depths.shape[0]), grid.cell_m * np.arange(depths.shape[1])),
        np.nan_to_num(depths, nan=0.0), bounds_error=False, fill_value=0.0,
    )
    barred = _barred(grid, features, wish.margin_m)
    legs = []
    for line in contour_lines(grid, wish.depth_m):
        path = _turnable(line, wish)
        if path is None:
            continue
        for piece in _left(path, barred, under, wish, grid.cell_m):
            leg = _leg(piece, wish, grid, under)
            if leg is not None:
                legs.append(leg)
    if not legs:
        raise InvalidInputError(
            "depth_m", round(wish.depth_m, 2),
            f"a depth whose contour has {LEAST_LEG_M:.0f} m that are deep enough, turnable and "
            "clear of closed water: another depth, a smaller margin, or a tighter turn",
        )
    legs.sort(key=lambda leg: -_worth(leg, wish))
    return tuple(legs[:MOST_LEGS])


def _depths(grid: DepthGrid) -> Array:
    return np.array(
        [[math.nan if d is None else d for d in row] for row in grid.rows], dtype=float
    )


def _barred(grid: DepthGrid, features: Sequence[Feature], margin_m: float) -> BaseGeometry:
    shapes: list[BaseGeometry] = []
    for feature in features:
        corners = [offset_m(grid.south_west, corner) for corner in feature.corners]
        if feature.kind == "closed_area":
            shapes.append(Polygon(corners).buffer(margin_m))
        elif feature.kind in CLOSED or feature.kind == "hazard":
            berth = margin_m if feature.kind in CLOSED else 0.0
            # A polygon inside the circle would let a leg cut its edge: a little wider.
            shapes.append(Point(corners[0]).buffer(1.01 * (feature.radius_m + berth) + 1.0))
    return unary_union(shapes) if shapes else Polygon()


def _resampled(line: Array, *, closed: bool) -> Array:
    shape = LineString(line)
    count = max(int(shape.length / STEP_M), 4)
    at = np.linspace(0.0, shape.length, count, endpoint=not closed)
    return np.asarray(shapely.get_coordinates(shapely.line_interpolate_point(shape, at)))


def _curvature(path: Array, *, closed: bool) -> Array:
    """Return the curvature at each point from the turn of the steps about it, 1/m."""
    steps = np.diff(path, axis=0, append=path[:1] if closed else path[-1:])
    if not closed:
        steps = steps[:-1]
    heading = np.unwrap(np.arctan2(steps[:, 1], steps[:, 0]))
    length = np.hypot(steps[:, 0], steps[:, 1])
    if closed:
        turn = np.diff(heading, append=heading[0])
        turn = (turn + math.pi) % (2.0 * math.pi) - math.pi
        return np.asarray(np.abs(turn) / np.maximum(length, 1e-6))
    turn = np.abs(np.diff(heading))
    return np.asarray(turn / np.maximum(0.5 * (length[:-1] + length[1:]), 1e-6))


def _turnable(line: Array, wish: LegsWish) -> Array | None:
    """Return a contour smoothed until it can be steered, None where it is too small for that."""
    closed = bool(np.allclose(line[0], line[-1])) and len(line) > 3
    path = _resampled(line, closed=closed)
    if STEP_M * len(path) < LEAST_LEG_M:
        return None
    mode = "wrap" if closed else "nearest"
    sigma = 1.0
    smooth = path
    # A weave takes its share of the curve that is allowed.
    allowed = (0.4 if wish.weave_m > 0.0 else 0.98) / wish.radius_m
    while (_curvature(smooth, closed=closed) > allowed).any():
        sigma *= 1.5
        if sigma > len(path):
            return None
        smooth = gaussian_filter1d(path, sigma, axis=0, mode=mode)
    if wish.weave_m > 0.0:
        straight, wave = smooth, 1.0
        smooth = _woven(straight, wish, wave, closed=closed)
        while (_curvature(smooth, closed=closed) > 1.0 / wish.radius_m).any():
            wave *= 1.2
            if wave > 4.0:
                return None
            smooth = _woven(straight, wish, wave, closed=closed)
    if closed:
        smooth = np.vstack([smooth, smooth[:1]])
    return smooth


def _woven(path: Array, wish: LegsWish, longer: float, *, closed: bool) -> Array:
    """Return a path that weaves to either side, in waves as short as the radius allows."""
    length = LineString(path).length
    # A sine of height A and length L curves by A (2 pi / L)^2 at most: half the allowance is its.
    wave = longer * 2.0 * math.pi * math.sqrt(2.0 * wish.weave_m * wish.radius_m)
    waves = max(int(length / wave), 1) if closed else length / wave
    along = np.linspace(0.0, 2.0 * math.pi * waves, len(path), endpoint=not closed)
    ahead = np.gradient(path, axis=0)
    ahead /= np.maximum(np.hypot(ahead[:, 0], ahead[:, 1])[:, None], 1e-9)
    side = np.column_stack([-ahead[:, 1], ahead[:, 0]])
    return np.asarray(path + wish.weave_m * np.sin(along)[:, None] * side)


def _left(
    path: Array, barred: BaseGeometry, under: RegularGridInterpolator, wish: LegsWish, cell_m: float
) -> list[Array]:
    """Return what is left of a path where nothing is in its way."""
    shore = max(SHORE_M, 0.5 * cell_m)
    deep = under(path[:, ::-1]) >= max(wish.least_depth_m, 0.3)
    for off in ((shore, 0.0), (-shore, 0.0), (0.0, shore), (0.0, -shore)):
        deep &= under(path[:, ::-1] + np.array(off)) > 0.0
    pieces = []
    edges = np.flatnonzero(np.diff(np.concatenate([[False], deep, [False]]).astype(int)))
    for start, end in zip(edges[::2], edges[1::2], strict=True):
        if end - start < 2:
            continue
        left = LineString(path[start:end]).difference(barred)
        for part in getattr(left, "geoms", [left]):
            if part.length >= LEAST_LEG_M:
                pieces.append(shapely.get_coordinates(part))
    return pieces


def _leg(
    piece: Array, wish: LegsWish, grid: DepthGrid, under: RegularGridInterpolator
) -> Leg | None:
    shape = LineString(piece)
    steps = np.diff(piece, axis=0)
    length = np.hypot(steps[:, 0], steps[:, 1])
    heading = np.degrees(np.arctan2(steps[:, 0], steps[:, 1])) % 360.0
    across = 0.0
    if wish.sun_deg is not None:
        aside = np.abs(np.sin(np.radians(heading - wish.sun_deg)))
        across = _share(length, aside >= math.sqrt(0.5))
    with_wind = np.cos(np.radians(heading - wish.wind_from_deg))
    into = _share(length, with_wind >= math.sqrt(0.5))
    along = _share(length, with_wind <= -math.sqrt(0.5))
    if wish.wind_mps > 0.0 and along > into:
        # Into the wind a boat holds its line and its speed better: from the end, then.
        piece, into = piece[::-1], along
    bottom = under(piece[:, ::-1])
    curve = _curvature(_resampled(piece, closed=False), closed=False)
    tight = float(curve.max()) if curve.size else 0.0
    # Half a metre of the drawn line is less than any steering.
    drawn = shapely.get_coordinates(LineString(piece).simplify(0.5))
    words = []
    if wish.sun_deg is not None and across >= 0.5:
        words.append("mostly across the sun")
    if wish.wind_mps >= 2.0 and into >= 0.5:
        words.append("mostly into the wind")
    if wish.weave_m > 0.0:
        words.append("weaving up and down the bank")
    return Leg(
        places=tuple(_place(grid, float(x), float(y)) for x, y in drawn), length_m=shape.length,
        minutes=shape.length / wish.speed_mps / 60.0,
        tightest_m=1.0 / tight if tight > 1e-4 else 10_000.0,
        shallowest_m=float(bottom.min()), deepest_m=float(bottom.max()), across_sun=across,
        into_wind=into, why=", ".join(words) or "along the contour",
    )


def _place(grid: DepthGrid, east_m: float, north_m: float) -> GeoPoint:
    return moved(
        moved(grid.south_west, course_deg=0.0, distance_m=north_m), course_deg=90.0,
        distance_m=east_m,
    )


def _share(length: Array, holds: NDArray[np.bool_]) -> float:
    return float(length[holds].sum() / max(length.sum(), 1e-9))


def _worth(leg: Leg, wish: LegsWish) -> float:
    blown = 0.0
    if wish.wind_mps > 4.0:
        blown = 0.5 * (1.0 - leg.into_wind) * min((wish.wind_mps - 4.0) / 4.0, 1.0)
    return math.sqrt(leg.length_m) * (1.0 + 0.5 * leg.across_sun) * (1.0 - blown)
