"""Soundings from files: CSV, GeoJSON and GPX; whatever they hold is read with distrust."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Callable
from typing import Any, Final, Literal

import gpxpy
import gpxpy.gpx
import shapely
from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from coldwake_core.chart.features import MOST_CORNERS, MOST_FEATURES
from coldwake_core.chart.grid import GeoPoint, moved
from coldwake_core.checks import require_number
from coldwake_core.constants import FOOT_M
from coldwake_core.errors import InvalidInputError
from coldwake_core.survey.soundings import MOST_SOUNDINGS, WIDEST_M, Sounding
from common.csv import number_in, table_of

Unit = Literal["m", "ft"]
UNITS: Final = {"m": 1.0, "ft": FOOT_M}
FORMATS: Final = ("csv", "geojson", "gpx")
STEP_DEG: Final = 0.0003
"""Along a contour a sounding is taken every thirty metres or so."""
_LATITUDE: Final = ("latitude", "lat", "y", "latitude_deg")
_LONGITUDE: Final = ("longitude", "lon", "lng", "long", "x", "longitude_deg")
_EAST: Final = ("x_m", "east_m")
_NORTH: Final = ("y_m", "north_m")
_DEPTH: Final = ("depth", "depth_m", "depth_ft", "z", "sounding")
_NUMBER: Final = re.compile(r"-?\d+(?:\.\d+)?")


def read_soundings(
    text: str, *, kind: str, unit: Unit, swap: bool, home: GeoPoint
) -> list[Sounding]:
    """Return the soundings of a file.

    Depths are in ``unit`` and positive downward (a file of negative ones is turned over); with
    ``swap`` latitude and longitude are exchanged. A CSV may give metres east and north of ``home``
    instead. Raises InvalidInputError naming row or feature.
    """
    readers: dict[str, Callable[[str], list[Row]]] = {
        "csv": lambda csv: _csv(csv, home), "geojson": _geojson, "gpx": _gpx,
    }
    if kind not in readers:
        raise InvalidInputError("format", kind, "one of csv, geojson, gpx")
    rows = readers[kind](text)
    if not rows:
        raise InvalidInputError("text", "empty", "a file with soundings in it")
    if len(rows) > MOST_SOUNDINGS:
        raise InvalidInputError("text", len(rows), f"at most {MOST_SOUNDINGS} soundings")
    if all(depth <= 0.0 for _, _, depth, _ in rows):
        rows = [(lat, lon, -depth, where) for lat, lon, depth, where in rows]
    found = []
    for lat, lon, depth, where in rows:
        if swap:
            lat, lon = lon, lat
        if abs(lat) > 85.0 >= abs(lon) and abs(lat) <= 180.0:
            raise InvalidInputError(
                f"{where}.latitude", lat,
                "-85 to 85 degrees: latitude and longitude look exchanged, exchange them and look "
                "again",
            )
        require_number(f"{where}.latitude", lat, low=-85.0, high=85.0, unit="degrees")
        require_number(f"{where}.longitude", lon, low=-180.0, high=180.0, unit="degrees")
        depth_m = depth * UNITS[unit]
        require_number(f"{where}.depth", depth_m, low=0.0, high=1000.0, unit="m")
        found.append(
            Sounding(place=GeoPoint(latitude_deg=lat, longitude_deg=lon), depth_m=depth_m)
        )
    return found


Row = tuple[float, float, float, str]


def _csv(text: str, home: GeoPoint) -> list[Row]:
    head, rows = table_of(text)
    if not head:
        return []

    def column(names: tuple[str, ...], what: str) -> int:
        for name in names:
            if name in head:
                return head.index(name)
        raise InvalidInputError(
            "text", ", ".join(head)[:120], f"a first row that names a column of {what} ({names[0]})"
        )

    if set(_EAST) & set(head) and set(_NORTH) & set(head):
        return _metres(rows, (column(_EAST, "east"), column(_NORTH, "north"),
                              column(_DEPTH, "depth")), home)
    at = column(_LATITUDE, "latitude"), column(_LONGITUDE, "longitude"), column(_DEPTH, "depth")
    names = ("latitude", "longitude", "depth")
    found: list[Row] = []
    for row in rows:
        lat, lon, depth = (number_in(row, i, name) for i, name in zip(at, names, strict=True))
        found.append((lat, lon, depth, f"row {row[0]}"))
    return found


def _metres(rows: Any, at: tuple[int, int, int], home: GeoPoint) -> list[Row]:
    found: list[Row] = []
    for row in rows:
        east, north, depth = (
            number_in(row, i, name)
            for i, name in zip(at, ("east", "north", "depth"), strict=True)
        )
        for name, value in (("east", east), ("north", north)):
            if abs(value) > WIDEST_M:
                raise InvalidInputError(
                    f"row {row[0]}.{name}", value,
                    "metres from the water's own place, or else latitude and longitude",
                )
        place = moved(
            moved(home, course_deg=0.0, distance_m=north), course_deg=90.0, distance_m=east
        )
        found.append((place.latitude_deg, place.longitude_deg, depth, f"row {row[0]}"))
    return found


def _features(text: str) -> list[Any]:
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise InvalidInputError("text", text[:40], "GeoJSON") from None
    features = data.get("features") if isinstance(data, dict) else None
    if not isinstance(features, list):
        raise InvalidInputError("text", str(data)[:40], "a FeatureCollection with features")
    return features


def _geojson(text: str) -> list[Row]:
    found: list[Row] = []
    for i, feature in enumerate(_features(text)):
        where = f"features[{i}]"
        try:
            properties = feature.get("properties") or {}
            geometry = feature["geometry"]
            kind, places = geometry["type"], geometry["coordinates"]
            depth = next(
                (properties[name] for name in properties if str(name).lower() in _DEPTH), None
            )
            lines = {
                "Point": lambda p: [[p]], "MultiPoint": lambda p: [p], "LineString": lambda p: [p],
                "MultiLineString": lambda p: p,
            }
            if kind not in lines:
                continue
            parts: list[Any] = lines[kind](places)  # type: ignore[no-untyped-call]
            for line in parts:
                for lon, lat, z in _along(line, depth, dense="Line" in kind):
                    found.append((float(lat), float(lon), float(z), where))
        except (AttributeError, KeyError, TypeError, ValueError, IndexError):
            raise InvalidInputError(
                where, str(feature)[:60], "a point or a contour with a depth"
            ) from None
        if len(found) > MOST_SOUNDINGS:
            break
    return found


def read_shores(text: str, *, swap: bool) -> list[tuple[GeoPoint, ...]]:
    """Return the closed lines without a depth in GeoJSON: where the water ends, and islands.

    Those of more corners than a feature has are drawn with fewer. Raises InvalidInputError.
    """
    found: list[tuple[GeoPoint, ...]] = []
    for i, feature in enumerate(_features(text)):
        where = f"features[{i}]"
        try:
            properties, geometry = feature.get("properties") or {}, feature["geometry"]
            if any(str(name).lower() in _DEPTH for name in properties):
                continue
            if properties.get("kind", "shore") != "shore":
                continue
            parts = {"Polygon": lambda p: p, "MultiPolygon": lambda p: [r for q in p for r in q]}
            of = parts.get(geometry["type"])
            if of is None:
                continue
            for ring in of(geometry["coordinates"]):  # type: ignore[no-untyped-call]
                found.append(_ring([(float(p[0]), float(p[1])) for p in ring], swap))
        except (AttributeError, KeyError, TypeError, ValueError, IndexError):
            raise InvalidInputError(where, str(feature)[:60], "a closed line of places") from None
        if len(found) > MOST_FEATURES:
            raise InvalidInputError("text", len(found), f"at most {MOST_FEATURES} shores")
    return found


def _ring(places: list[tuple[float, float]], swap: bool) -> tuple[GeoPoint, ...]:
    """A closed line with no more corners than a feature has; the last is not the first again."""
    if not all(math.isfinite(x) and math.isfinite(y) for x, y in places):
        raise ValueError
    line, fine = shapely.LineString(places), STEP_DEG / 30.0
    corners = list(line.coords)
    while len(corners) > MOST_CORNERS:
        corners, fine = list(shapely.simplify(line, fine).coords), 2.0 * fine
    if corners[0] == corners[-1]:
        del corners[-1]
    return tuple(
        GeoPoint(latitude_deg=x if swap else y, longitude_deg=y if swap else x)
        for x, y in corners
    )


def _along(line: list[Any], depth: Any, *, dense: bool) -> list[tuple[float, float, float]]:
    """The places of a line, and between them where they lie far apart."""
    found: list[tuple[float, float, float]] = []
    for place in line:
        z = depth if depth is not None else place[2]
        lon, lat = float(place[0]), float(place[1])
        if dense and found:
            lon0, lat0, z0 = found[-1]
            count = min(int(math.hypot(lon - lon0, lat - lat0) / STEP_DEG), 200)
            for k in range(1, count):
                share = k / count
                found.append((
                    lon0 + share * (lon - lon0), lat0 + share * (lat - lat0),
                    z0 + share * (float(z) - z0),
                ))
        found.append((lon, lat, float(z)))
    return found


def _gpx(text: str) -> list[Row]:
    try:
        # Entities, external ones and bombs are refused before any parser that expands them.
        fromstring(text.encode(), forbid_dtd=True)
        data = gpxpy.parse(text)
    except DefusedXmlException:
        raise InvalidInputError("text", "entities", "GPX without a DTD: not taken") from None
    except Exception:
        raise InvalidInputError("text", text[:40], "GPX") from None
    found: list[Row] = []
    for i, point in enumerate(data.waypoints):
        depth = _depth_of(point)
        if depth is None:
            continue
        found.append((point.latitude, point.longitude, depth, f"wpt[{i}]"))
    if data.waypoints and not found:
        raise InvalidInputError(
            "text", "no depths", "waypoints with a depth in <depth>, <ele> or their name"
        )
    return found


def _depth_of(point: gpxpy.gpx.GPXWaypoint) -> float | None:
    for extension in point.extensions:
        for node in extension.iter():
            if node.tag.rsplit("}", 1)[-1].lower() == "depth" and node.text:
                return float(node.text)
    if point.elevation is not None:
        return float(point.elevation)
    number = _NUMBER.search(point.name or point.comment or "")
    return None if number is None else float(number.group())
