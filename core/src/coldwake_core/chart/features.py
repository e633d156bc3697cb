"""What stands on a chart besides depths: launch, shore, inlets, bars, hazards, closed water."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import date
from typing import Final, Literal

from ..checks import require_number, require_text
from ..errors import InvalidInputError
from .grid import GeoPoint, offset_m

FeatureKind = Literal[
    "launch", "inlet", "point", "bar", "neck", "hazard", "closed_ring", "closed_area", "place",
    "shore",
]
CLOSED: Final = ("closed_ring", "closed_area")
KEEP_OUT: Final = (*CLOSED, "hazard")
"""Kinds that a boat stays out of: a trip takes them along."""
AREAS: Final = ("closed_area", "shore")
"""Kinds with corners all round; a shore inside a shore is an island."""
MOST_FEATURES: Final = 300
MOST_CORNERS: Final = 500


@dataclass(frozen=True, slots=True, kw_only=True)
class Feature:
    """Something on a chart.

    Parameters
    ----------
    id, name : str
        Key and plain name.
    kind : FeatureKind
        What it is.
    corners : tuple of GeoPoint
        Where: one place; the corners of an area in order, at least three, the last not the first.
    radius_m : float
        Of a ring about its place, or how wide a berth a hazard asks, m; 0 for the others.
    rule : str
        What closes it, as its user read it.
    origin, entered_on : str
        Where the user read it, and when (YYYY-MM-DD): needed where water is closed.
    """

    id: str
    name: str
    kind: FeatureKind
    corners: tuple[GeoPoint, ...]
    radius_m: float = 0.0
    rule: str = ""
    origin: str = ""
    entered_on: str = ""

    def check(self) -> None:
        """Raise InvalidInputError unless it can be drawn, and closed water says by whose rule."""
        require_text("id", self.id, longest=60)
        require_text("name", self.name, longest=120)
        require_text("rule", self.rule, longest=300, empty=True)
        require_text("origin", self.origin, longest=200, empty=True)
        for i, corner in enumerate(self.corners):
            where = f"corners[{i}]"
            require_number(f"{where}.latitude_deg", corner.latitude_deg, low=-85.0, high=85.0)
            require_number(f"{where}.longitude_deg", corner.longitude_deg, low=-180.0, high=180.0)
        require_number("radius_m", self.radius_m, low=0.0, high=20_000.0, unit="m")
        if self.kind in AREAS:
            if not 3 <= len(self.corners) <= MOST_CORNERS:
                raise InvalidInputError(
                    "corners", len(self.corners), f"3 to {MOST_CORNERS} corners of an area"
                )
            crossing = first_crossing(self.corners)
            if crossing is not None:
                raise InvalidInputError(
                    "corners", f"sides {crossing[0] + 1} and {crossing[1] + 1}",
                    "sides that do not cross one another: give the corners in their order",
                )
        elif len(self.corners) != 1:
            raise InvalidInputError("corners", len(self.corners), "one place")
        if self.kind == "closed_ring" and self.radius_m <= 0.0:
            raise InvalidInputError("radius_m", self.radius_m, "more than 0: how wide the ring is")
        if self.kind in CLOSED:
            require_text("rule", self.rule, longest=300)
            require_text("origin", self.origin, longest=200)
            try:
                date.fromisoformat(self.entered_on)
            except ValueError:
                raise InvalidInputError(
                    "entered_on", self.entered_on, "the day you read the rule, such as 2026-04-14"
                ) from None


@dataclass(frozen=True, slots=True, kw_only=True)
class Features:
    """All that stands on a chart."""

    features: tuple[Feature, ...] = ()

    def check(self) -> None:
        """Raise InvalidInputError if there are too many, or two of one id."""
        if len(self.features) > MOST_FEATURES:
            raise InvalidInputError("features", len(self.features), f"at most {MOST_FEATURES}")
        ids = [feature.id for feature in self.features]
        for i, key in enumerate(ids):
            if key in ids[:i]:
                raise InvalidInputError(f"features[{i}].id", key, "an id of its own")


def first_crossing(corners: tuple[GeoPoint, ...]) -> tuple[int, int] | None:
    """Return the first two sides of a closed polygon that cross one another.

    Parameters
    ----------
    corners : tuple of GeoPoint
        Its corners in order.

    Returns
    -------
    (int, int) or None
        Numbers of the sides, from 0; None where it is simple.

    Notes
    -----
    Each pair of sides that share no corner, by the signs of the four triangles they make: on a
    patch as small as a lake degrees serve as well as metres.
    """
    xy = [(c.longitude_deg, c.latitude_deg) for c in corners]
    count = len(xy)

    def turn(a: tuple[float, float], b: tuple[float, float], c: tuple[float, float]) -> float:
        return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])

    for i in range(count):
        for k in range(i + 1, count):
            if k == i + 1 or (i == 0 and k == count - 1):
                continue
            a, b, c, d = xy[i], xy[(i + 1) % count], xy[k], xy[(k + 1) % count]
            if turn(a, b, c) * turn(a, b, d) < 0.0 and turn(c, d, a) * turn(c, d, b) < 0.0:
                return i, k
    return None


def beyond_m(feature: Feature, place: GeoPoint) -> float:
    """Return how far outside of a feature a place lies.

    Parameters
    ----------
    feature : Feature
        A ring, an area, or a hazard with its berth.
    place : GeoPoint
        Where.

    Returns
    -------
    float
        To its nearest edge, m; negative within it.

    Notes
    -----
    On a flat patch about the place. Inside of an area is what a ray crosses an odd number of sides
    from (Jordan curve theorem).
    """
    corners = [offset_m(place, corner) for corner in feature.corners]
    if len(corners) == 1:
        return math.hypot(*corners[0]) - feature.radius_m
    nearest, within = math.inf, False
    for (x1, y1), (x2, y2) in zip(corners, corners[1:] + corners[:1], strict=True):
        dx, dy = x2 - x1, y2 - y1
        long = dx * dx + dy * dy
        along = 0.0 if long == 0.0 else min(max(-(x1 * dx + y1 * dy) / long, 0.0), 1.0)
        nearest = min(nearest, math.hypot(x1 + along * dx, y1 + along * dy))
        if (y1 > 0.0) != (y2 > 0.0) and x1 - y1 * dx / dy > 0.0:
            within = not within
    return -nearest if within else nearest


def may_reach(feature: Feature, place: GeoPoint, within_m: float) -> bool:
    """Say whether any of a feature may lie within a distance: a box about it tells, at once.

    Parameters
    ----------
    feature : Feature
        A ring, an area, or a hazard with its berth.
    place : GeoPoint
        From where.
    within_m : float
        How far, m.

    Returns
    -------
    bool
        Never False where some of it does.
    """
    reach = 1.01 * (within_m + feature.radius_m) + 1.0
    east = [corner.longitude_deg for corner in feature.corners]
    north = [corner.latitude_deg for corner in feature.corners]
    low = GeoPoint(latitude_deg=min(north), longitude_deg=min(east))
    high = GeoPoint(latitude_deg=max(north), longitude_deg=max(east))
    (west, south), (east_m, north_m) = offset_m(place, low), offset_m(place, high)
    return west <= reach and south <= reach and east_m >= -reach and north_m >= -reach
