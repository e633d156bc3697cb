"""From soundings to a chart: looked at first, then gridded with their doubt."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.interpolate import LinearNDInterpolator
from scipy.spatial import Delaunay, QhullError, cKDTree
from shapely.geometry.base import BaseGeometry

from ..chart.grid import MOST_CELLS, DepthGrid, GeoPoint, moved, offset_m
from ..checks import require_number
from ..constants import FOOT_M
from ..errors import InvalidInputError

Array = NDArray[np.float64]

LEAST_SOUNDINGS: Final = 8
MOST_SOUNDINGS: Final = 200_000
SPIKE_M: Final = 6.0
"""A sounding so far from what its neighbours say is a spike (judged)."""
SOUNDER_M: Final = 0.3
"""What an honest sounding is wrong by at least, m (judged: waves, cone, the boat's own squat)."""
REACH_M: Final = 250.0
"""Water further from any sounding than this is left blank (judged)."""
SHORE_STEP_M: Final = 20.0
"""Along a shore the water is taken to end at least this often."""
WIDEST_M: Final = 60_000.0
"""A lake wider than this is two lakes, or swapped coordinates."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Sounding:
    """A depth at a place: m, and where."""

    place: GeoPoint
    depth_m: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Oddity:
    """Something odd among soundings: what, how many, and what to do about it."""

    kind: str
    count: int
    text: str
    rows: tuple[int, ...] = ()


@dataclass(frozen=True, slots=True, kw_only=True)
class Survey:
    """What soundings look like before they are taken.

    Parameters
    ----------
    count : int
        How many.
    shallowest_m, deepest_m : float
        Their range, m.
    south_west, north_east : GeoPoint
        Where they lie.
    spacing_m : float
        Middle distance to the nearest neighbour, m.
    oddities : tuple of Oddity
        What is odd, worst first.
    """

    count: int
    shallowest_m: float
    deepest_m: float
    south_west: GeoPoint
    north_east: GeoPoint
    spacing_m: float
    oddities: tuple[Oddity, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Chart:
    """A grid of depths, and how sure each cell is.

    Parameters
    ----------
    grid : DepthGrid
        Depths.
    doubt_m : tuple of tuple of (float or None)
        One standard deviation of each cell, m; None where there is no depth.
    """

    grid: DepthGrid
    doubt_m: tuple[tuple[float | None, ...], ...]


def look_at(
    soundings: Sequence[Sounding], *, known_at: GeoPoint | None = None,
    known_deepest_m: float | None = None, beside: Sequence[Sounding] = (),
) -> Survey:
    """Return what soundings look like, and what is odd about them.

    Parameters
    ----------
    soundings : sequence of Sounding
        Depths at places, 8 to 200 000; any number beside others.
    known_at : GeoPoint, optional
        Where the water is, if it is known.
    known_deepest_m : float, optional
        Its greatest depth, if it is known, m.
    beside : sequence of Sounding
        What the water has already: neighbours to judge by, not looked at themselves.

    Returns
    -------
    Survey

    Raises
    ------
    InvalidInputError
        If there are too few or too many, or they lie too far apart for one water.

    Notes
    -----
    Spikes: a sounding over 6 m, and over four times the usual step, away from the median of its six
    neighbours. Feet for metres: a deepest sounding within a fifth of 3.28 times the known depth.
    Swapped coordinates: soundings that lie by the known place once latitude and longitude are
    exchanged. Nothing is changed: the user says what to do.
    """
    least = 1 if len(beside) >= LEAST_SOUNDINGS else LEAST_SOUNDINGS
    if not least <= len(soundings) <= MOST_SOUNDINGS:
        raise InvalidInputError("soundings", len(soundings), f"{least} to {MOST_SOUNDINGS} of them")
    every_east, every_north, every_depth = _flat([*soundings, *beside])
    east, north, depth = (a[:len(soundings)] for a in (every_east, every_north, every_depth))
    oddities: list[Oddity] = []
    middle = soundings[len(soundings) // 2].place
    if known_at is not None and math.hypot(*offset_m(known_at, middle)) > WIDEST_M:
        swapped = abs(middle.longitude_deg) <= 85.0 and math.hypot(*offset_m(
            known_at,
            GeoPoint(latitude_deg=middle.longitude_deg, longitude_deg=middle.latitude_deg),
        )) <= WIDEST_M
        oddities.append(
            Oddity(
                kind="swapped", count=len(soundings),
                text="latitude and longitude look exchanged: exchange them and look again",
            ) if swapped else Oddity(
                kind="elsewhere", count=len(soundings),
                text="they lie more than 60 km from this water: is it the right file?",
            )
        )
    if max(np.ptp(east), np.ptp(north)) > WIDEST_M:
        raise InvalidInputError(
            "soundings", round(float(max(np.ptp(east), np.ptp(north)))),
            "within 60 km of one another: a place may be mistyped",
        )
    spikes = _spikes(east, north, depth)
    deepest = float(np.delete(depth, spikes).max())
    feet = known_deepest_m is not None and abs(deepest * FOOT_M / known_deepest_m - 1.0) < 0.2
    if not feet:
        # Feet taken for metres would all stand out from those beside them: that is said once.
        spikes = _spikes(every_east, every_north, every_depth)
        spikes = spikes[spikes < len(soundings)]
    if feet:
        oddities.append(Oddity(
            kind="feet", count=len(soundings),
            text="depths look like feet taken for metres: say feet and look again",
        ))
    if spikes.size:
        oddities.append(Oddity(
            kind="spikes", count=int(spikes.size),
            text="far from what their neighbours say: left out when the chart is made",
            rows=tuple(int(i) + 1 for i in spikes[:50]),
        ))
    tree = cKDTree(np.column_stack([east, north]))
    near = tree.query(np.column_stack([east, north]), k=2)[0][:, 1]
    near = near[np.isfinite(near)]
    double = int((near < 0.05).sum())
    if double:
        oddities.append(Oddity(
            kind="double", count=double, text="at the place of another: their mean is taken"
        ))
    latitudes = [s.place.latitude_deg for s in soundings]
    longitudes = [s.place.longitude_deg for s in soundings]
    return Survey(
        count=len(soundings), shallowest_m=float(depth.min()), deepest_m=float(depth.max()),
        south_west=GeoPoint(latitude_deg=min(latitudes), longitude_deg=min(longitudes)),
        north_east=GeoPoint(latitude_deg=max(latitudes), longitude_deg=max(longitudes)),
        spacing_m=float(np.median(near)) if near.size else 0.0, oddities=tuple(oddities),
    )


def grid_soundings(
    soundings: Sequence[Sounding], *, cell_m: float | None = None, level_m: float = 0.0,
    origin: str = "", shores: Sequence[Sequence[GeoPoint]] = (),
) -> Chart:
    """Return a chart made from soundings.

    Parameters
    ----------
    soundings : sequence of Sounding
        Depths at places.
    cell_m : float, optional
        Side of a cell, m; about half the soundings' spacing when left out.
    level_m : float
        How far the water stood above the chart's own level when it was sounded, m; taken off.
    origin : str
        Where they are from.
    shores : sequence of sequence of GeoPoint
        Lines where the water ends at the chart's own level, each all round; one inside another is
        an island.

    Returns
    -------
    Chart

    Raises
    ------
    InvalidInputError
        If the soundings lie on one line, or the grid would be too large.

    Notes
    -----
    Linear between the corners of the Delaunay triangles; spikes are left out and doubles averaged.
    The doubt of a cell grows with its distance to the nearest sounding, by the bottom's own usual
    slope between neighbours: sqrt(0.3^2 + (slope distance / 2)^2). Cells over 250 m from any
    sounding are blank. A shore counts as soundings of nothing along it, and what lies outside it
    is land.
    """
    look_at(soundings)
    east, north, depth = _flat(soundings)
    keep = np.ones(len(depth), bool)
    keep[_spikes(east, north, depth)] = False
    points, values = _merged(np.column_stack([east, north])[keep], depth[keep] - level_m)
    rings = [
        np.array([offset_m(soundings[0].place, corner) for corner in shore]) for shore in shores
    ]
    if rings:
        if not _inside(rings, points[:, 0], points[:, 1]).any():
            raise InvalidInputError("shore", len(rings), "round the soundings, not beside them")
        edge = np.concatenate([_along(ring) for ring in rings])
        points, values = _merged(
            np.concatenate([points, edge]), np.concatenate([values, np.zeros(len(edge))])
        )
    try:
        triangles = Delaunay(points)
    except QhullError:
        raise InvalidInputError(
            "soundings", len(points), "spread over the water, not along one line"
        ) from None
    tree = cKDTree(points)
    spacing = float(np.median(tree.query(points, k=2)[0][:, 1]))
    extent = np.ptp(points, axis=0)
    if cell_m is None:
        least = math.sqrt(extent[0] * extent[1] / (0.8 * MOST_CELLS))
        cell_m = max(round(max(0.5 * spacing, least)), 2.0)
    require_number("cell_m", cell_m, low=1.0, high=2000.0, unit="m")
    columns, rows = (int(extent[i] / cell_m) + 2 for i in range(2))
    if columns * rows > MOST_CELLS:
        raise InvalidInputError("cell_m", cell_m, "larger: that makes more cells than a chart has")
    low = points.min(axis=0)
    grid_x, grid_y = np.meshgrid(
        low[0] + cell_m * np.arange(columns), low[1] + cell_m * np.arange(rows)
    )
    found = LinearNDInterpolator(triangles, values)(grid_x, grid_y)
    away = tree.query(np.column_stack([grid_x.ravel(), grid_y.ravel()]))[0].reshape(found.shape)
    found[away > REACH_M] = np.nan
    if rings:
        found[~_inside(rings, grid_x, grid_y)] = np.nan
    slope = _usual_slope(points, values, tree)
    doubt = np.sqrt(SOUNDER_M**2 + (0.5 * slope * away) ** 2)
    start = soundings[0].place
    corner = moved(
        moved(start, course_deg=90.0, distance_m=float(low[0])), course_deg=0.0,
        distance_m=float(low[1]),
    )
    grid = DepthGrid(
        south_west=corner, cell_m=cell_m, origin=origin,
        rows=tuple(
            tuple(None if math.isnan(d) else max(round(float(d), 2), 0.0) for d in row)
            for row in found
        ),
    )
    grid.check()
    return Chart(grid=grid, doubt_m=tuple(
        tuple(
            None if math.isnan(d) else round(float(u), 2) for d, u in zip(row, sure, strict=True)
        )
        for row, sure in zip(found, doubt, strict=True)
    ))


def _flat(soundings: Sequence[Sounding]) -> tuple[Array, Array, Array]:
    start = soundings[0].place
    offsets = np.array([offset_m(start, s.place) for s in soundings])
    return offsets[:, 0], offsets[:, 1], np.array([s.depth_m for s in soundings])


def _along(ring: Array) -> Array:
    """Places along a closed line, SHORE_STEP_M apart or closer."""
    parts = []
    for a, b in zip(ring, np.roll(ring, -1, axis=0), strict=True):
        count = max(math.ceil(float(np.hypot(*(b - a))) / SHORE_STEP_M), 1)
        parts.append(a + np.linspace(0.0, 1.0, count, endpoint=False)[:, None] * (b - a))
    return np.concatenate(parts)


def _inside(rings: Sequence[Array], x: Array, y: Array) -> NDArray[np.bool_]:
    """Which places lie within an odd number of closed lines."""
    water: BaseGeometry = shapely.Polygon()
    for ring in rings:
        water = water.symmetric_difference(shapely.Polygon(ring))
    return np.asarray(shapely.contains_xy(water, x, y))


def _spikes(east: Array, north: Array, depth: Array) -> NDArray[np.intp]:
    if len(depth) < LEAST_SOUNDINGS:
        return np.zeros(0, np.intp)
    points = np.column_stack([east, north])
    around = min(7, len(depth))
    near = cKDTree(points).query(points, k=around)[1][:, 1:]
    off = np.abs(depth - np.median(depth[near], axis=1))
    usual = float(np.median(off))
    return np.asarray(np.flatnonzero(off > max(SPIKE_M, 4.0 * usual)))


def _merged(points: Array, values: Array) -> tuple[Array, Array]:
    """Soundings at one place (to 5 cm) as one, with their mean."""
    _, first, which = np.unique(
        np.round(points / 0.05), axis=0, return_index=True, return_inverse=True
    )
    which = which.ravel()
    total = np.bincount(which, weights=values)
    return points[first], total / np.bincount(which)


def _usual_slope(points: Array, values: Array, tree: cKDTree) -> float:
    distance, near = tree.query(points, k=min(5, len(points)))
    steps = np.abs(values[near[:, 1:]] - values[:, None])
    return float(np.median(steps / np.maximum(distance[:, 1:], 0.1)))
