"""A water's chart for a map and for other programs: contours, tint, GeoJSON, GPX."""

from __future__ import annotations

import math
from typing import Any, Final

import gpxpy.gpx

from coldwake_core.chart.features import AREAS, Feature, Features
from coldwake_core.chart.grid import DepthGrid, GeoPoint, moved
from coldwake_core.constants import FOOT_M
from coldwake_core.decode import decode
from coldwake_core.survey.legs import contour_lines, shore_lines

from .models import Water

TINT_CELLS: Final = 20_000
STEPS_M: Final = (0.5, 1.0, 2.0, 2.5, 5.0, 10.0, 20.0)


def chart_of(water: Water) -> DepthGrid | None:
    """Return a water's chart at today's level."""
    if water.chart is None:
        return None
    return decode(DepthGrid, water.chart, field="chart").lowered(water.below_m)


def features_of(water: Water) -> tuple[Feature, ...]:
    """Return what stands on a water's chart."""
    return decode(Features, {"features": water.features}).features


def _place(grid: DepthGrid, east_m: float, north_m: float) -> GeoPoint:
    return moved(
        moved(grid.south_west, course_deg=0.0, distance_m=north_m), course_deg=90.0,
        distance_m=east_m,
    )


def _places(grid: DepthGrid, line: Any) -> list[list[float]]:
    places = [_place(grid, float(x), float(y)) for x, y in line]
    return [[round(p.latitude_deg, 6), round(p.longitude_deg, 6)] for p in places]


def contour_step_m(deepest_m: float, unit: str) -> float:
    """Return the step between contours: some eight of them, round in the reader's unit, m."""
    by = FOOT_M if unit == "ft" else 1.0
    rounds = (2.0, 5.0, 10.0, 20.0, 50.0, 100.0) if unit == "ft" else STEPS_M
    return by * next((step for step in rounds if deepest_m / (step * by) <= 10.0), rounds[-1])


def map_of(water: Water, unit: str) -> dict[str, Any]:
    """Return what a map of a water is drawn from; places as [latitude, longitude]."""
    grid = chart_of(water)
    if grid is None:
        return {
            "bounds": [], "rows": [], "contours": [], "step_m": 0.0, "deepest_m": water.deepest_m,
            "doubt": [], "shore": [],
        }
    deepest = max((d for row in grid.rows for d in row if d is not None), default=0.0)
    step = contour_step_m(deepest, unit)
    contours = []
    for i in range(1, math.ceil(deepest / step)):
        for line in contour_lines(grid, i * step):
            if len(line) < 3:
                continue
            contours.append({"depth_m": i * step, "places": _places(grid, line)})
    tint = grid.coarser(TINT_CELLS)
    rows, columns = len(tint.rows), len(tint.rows[0])
    low = _place(tint, -0.5 * tint.cell_m, -0.5 * tint.cell_m)
    high = _place(tint, (columns - 0.5) * tint.cell_m, (rows - 0.5) * tint.cell_m)
    return {
        "bounds": [
            [low.latitude_deg, low.longitude_deg], [high.latitude_deg, high.longitude_deg]
        ],
        "shore": [{"depth_m": 0.0, "places": _places(grid, line)} for line in shore_lines(grid)],
        "rows": tint.rows, "contours": contours, "step_m": step, "deepest_m": deepest,
        "doubt": _thin(water.doubt, tint) if water.doubt else [],
    }


def _thin(doubt: list[list[float | None]], tint: DepthGrid) -> list[list[float | None]]:
    every = max(math.ceil(len(doubt) / len(tint.rows)), 1)
    return [row[::every] for row in doubt[::every]]


def geojson_of(water: Water) -> dict[str, Any]:
    """Return a water's contours and features as GeoJSON (RFC 7946: longitude first)."""
    found: list[dict[str, Any]] = []
    for line in map_of(water, "m")["contours"]:
        found.append({
            "type": "Feature", "properties": {"depth_m": line["depth_m"]},
            "geometry": {
                "type": "LineString", "coordinates": [[lon, lat] for lat, lon in line["places"]],
            },
        })
    for feature in features_of(water):
        corners = [[c.longitude_deg, c.latitude_deg] for c in feature.corners]
        area = feature.kind in AREAS
        found.append({
            "type": "Feature",
            "properties": {
                "name": feature.name, "kind": feature.kind, "radius_m": feature.radius_m,
                "rule": feature.rule, "origin": feature.origin, "entered_on": feature.entered_on,
            },
            "geometry": {
                "type": "Polygon" if area else "Point",
                "coordinates": [[*corners, corners[0]]] if area else corners[0],
            },
        })
    return {"type": "FeatureCollection", "features": found}


def gpx_of_legs(name: str, legs: list[list[GeoPoint]]) -> str:
    """Return legs as GPX routes."""
    gpx = gpxpy.gpx.GPX()
    gpx.creator = "Cold Wake"
    for i, places in enumerate(legs, start=1):
        route = gpxpy.gpx.GPXRoute(name=f"{name} leg {i}")
        route.points = [
            gpxpy.gpx.GPXRoutePoint(p.latitude_deg, p.longitude_deg) for p in places
        ]
        gpx.routes.append(route)
    return gpx.to_xml(version="1.1")


def gpx_of(water: Water) -> str:
    """Return a water's features as GPX waypoints."""
    gpx = gpxpy.gpx.GPX()
    gpx.creator = "Cold Wake"
    for feature in features_of(water):
        for corner in feature.corners:
            gpx.waypoints.append(gpxpy.gpx.GPXWaypoint(
                corner.latitude_deg, corner.longitude_deg, name=feature.name,
                type=feature.kind, description=feature.rule or None,
            ))
    return gpx.to_xml(version="1.1")
