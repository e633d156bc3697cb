"""A gridded depth chart: depth of the bottom at any place on it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from ..checks import require_number
from ..errors import InvalidInputError

EARTH_RADIUS_M: Final = 6_371_008.8
"""Mean radius (IUGG)."""
MOST_CELLS: Final = 160_000
MOST_CARRIED: Final = 40_000
"""Cells of a chart that a trip carries: what a phone reads in a moment."""
COMPASS: Final = (
    "north", "north-east", "east", "south-east", "south", "south-west", "west", "north-west",
)


@dataclass(frozen=True, slots=True, kw_only=True)
class GeoPoint:
    """A place on earth.

    Parameters
    ----------
    latitude_deg, longitude_deg : float
        Degrees, north and east positive.
    """

    latitude_deg: float
    longitude_deg: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DepthGrid:
    """Depths on a square grid.

    Parameters
    ----------
    south_west : GeoPoint
        The middle of the first cell.
    cell_m : float
        Side of a cell, m.
    rows : tuple of tuple of (float or None)
        Depths, m, rows from south to north, each from west to east; None is land.
    origin : str
        Where the chart comes from.
    """

    south_west: GeoPoint
    cell_m: float
    rows: tuple[tuple[float | None, ...], ...]
    origin: str = ""

    def check(self) -> None:
        """Raise InvalidInputError unless it is a usable grid."""
        require_number("latitude_deg", self.south_west.latitude_deg, low=-85.0, high=85.0)
        require_number("longitude_deg", self.south_west.longitude_deg, low=-180.0, high=180.0)
        require_number("cell_m", self.cell_m, low=1.0, high=2000.0, unit="m")
        if len(self.rows) < 2 or len(self.rows[0]) < 2:
            raise InvalidInputError("rows", len(self.rows), "at least 2 rows of 2 depths")
        if len(self.rows) * len(self.rows[0]) > MOST_CELLS:
            raise InvalidInputError("rows", len(self.rows), f"at most {MOST_CELLS} cells")
        for index, row in enumerate(self.rows):
            if len(row) != len(self.rows[0]):
                raise InvalidInputError(
                    f"rows[{index}]", len(row), f"as long as the first, {len(self.rows[0])}"
                )
            for depth in row:
                if depth is not None:
                    require_number(f"rows[{index}]", depth, low=0.0, high=1000.0, unit="m")

    def coarser(self, most_cells: int) -> DepthGrid:
        """Return the same chart with fewer cells.

        Parameters
        ----------
        most_cells : int
            How many at the most.

        Returns
        -------
        DepthGrid
            Every so manieth row and column; itself where it is small enough.
        """
        every = math.ceil(math.sqrt(len(self.rows) * len(self.rows[0]) / most_cells))
        if every <= 1:
            return self
        return DepthGrid(
            south_west=self.south_west, cell_m=self.cell_m * every, origin=self.origin,
            rows=tuple(row[::every] for row in self.rows[::every]),
        )

    def lowered(self, by_m: float) -> DepthGrid:
        """Return the chart with the water so much lower: what falls dry is land.

        Parameters
        ----------
        by_m : float
            How far the water is under the chart's level, m; negative where it is over it.

        Returns
        -------
        DepthGrid
        """
        if by_m == 0.0:
            return self
        return DepthGrid(
            south_west=self.south_west, cell_m=self.cell_m, origin=self.origin,
            rows=tuple(
                tuple(None if d is None or d <= by_m else d - by_m for d in row)
                for row in self.rows
            ),
        )

    def depth_m(self, place: GeoPoint) -> float | None:
        """Return the depth of the bottom at a place.

        Parameters
        ----------
        place : GeoPoint
            Where.

        Returns
        -------
        float or None
            Depth, m, between the four nearest cells; None off the chart. Land is depth 0.
        """
        east, north = offset_m(self.south_west, place)
        x, y = east / self.cell_m, north / self.cell_m
        column, row = math.floor(x), math.floor(y)
        if not (0 <= row < len(self.rows) - 1 and 0 <= column < len(self.rows[0]) - 1):
            return None
        u, v = x - column, y - row
        a, b = self.rows[row][column] or 0.0, self.rows[row][column + 1] or 0.0
        c, d = self.rows[row + 1][column] or 0.0, self.rows[row + 1][column + 1] or 0.0
        return (a * (1 - u) + b * u) * (1 - v) + (c * (1 - u) + d * u) * v


def offset_m(origin: GeoPoint, place: GeoPoint) -> tuple[float, float]:
    """Return how far a place lies from another, on a flat patch of a round earth.

    Parameters
    ----------
    origin, place : GeoPoint
        From and to.

    Returns
    -------
    (float, float)
        East and north, m.

    Notes
    -----
    Equirectangular about the origin: within 0.5 % of the geodesic over 20 km at the latitudes of
    lakes that are trolled (a sphere in place of the ellipsoid).
    """
    per_degree = math.radians(1.0) * EARTH_RADIUS_M
    north = (place.latitude_deg - origin.latitude_deg) * per_degree
    middle = math.radians(0.5 * (place.latitude_deg + origin.latitude_deg))
    return (place.longitude_deg - origin.longitude_deg) * per_degree * math.cos(middle), north


def compass_word(course_deg: float) -> str:
    """Return a course as one of eight words.

    Parameters
    ----------
    course_deg : float
        Degrees from north, clockwise.

    Returns
    -------
    str
    """
    return COMPASS[round(course_deg / 45.0) % 8]


def moved(place: GeoPoint, *, course_deg: float, distance_m: float) -> GeoPoint:
    """Return the place a distance away along a course.

    Parameters
    ----------
    place : GeoPoint
        From.
    course_deg : float
        Degrees from north, clockwise.
    distance_m : float
        Distance, m; negative is back along it.

    Returns
    -------
    GeoPoint
    """
    per_degree = math.radians(1.0) * EARTH_RADIUS_M
    course = math.radians(course_deg)
    north = distance_m * math.cos(course) / per_degree
    middle = math.radians(place.latitude_deg + 0.5 * north)
    east = distance_m * math.sin(course) / (per_degree * math.cos(middle))
    return GeoPoint(
        latitude_deg=place.latitude_deg + north, longitude_deg=place.longitude_deg + east
    )
