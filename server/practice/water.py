"""The made-up waters that are practised on, and the worlds that lie in them."""

from __future__ import annotations

import json
import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from functools import cache
from pathlib import Path
from typing import Any, Final

from django.conf import settings

from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid, GeoPoint, offset_m
from coldwake_core.decode import decode
from coldwake_core.errors import InvalidInputError
from coldwake_core.lakesim.river import River
from coldwake_core.lakesim.sailing import TURN_M, along, share_of
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.worlds import world_of
from coldwake_core.trade import Species

from .models import PracticeDay

BARS_WITHIN_M: Final = 120.0
"""Bars farther from the way than this have no fish on it (judged)."""
GOOD: Final = {"bar": 1.0, "neck": 1.6}
"""The tighter, the more fish (common practice; the figures are judged)."""


@dataclass(frozen=True, kw_only=True)
class PracticeWater:
    """A made-up water: its files, its fish, its light, and along which depths a boat goes."""

    file: str
    name: str
    species: Species
    latitude_deg: float
    longitude_deg: float
    day: str
    begin: timedelta
    utc_offset_min: int
    bottoms_m: tuple[float, ...]
    deepest_way_m: float
    shallowest_way_m: float
    turn_m: float

    @property
    def chart(self) -> DepthGrid:
        """Its depths."""
        return _chart(self.file)

    @property
    def features(self) -> tuple[Feature, ...]:
        """What is drawn on it."""
        return _features(self.file)

    def way(self, depth_m: float) -> tuple[GeoPoint, ...]:
        """Return a way for the boat, along the depth or the next that has one."""
        wanted = min(max(depth_m, self.shallowest_way_m), self.deepest_way_m)
        for depth in (wanted, *self.bottoms_m):
            try:
                return along(self.chart, depth, self.features, self.turn_m)
            except InvalidInputError:
                continue
        raise InvalidInputError("seed", depth_m, "another day: this one has no way for the boat")


LAKE: Final = PracticeWater(
    file="sallow_tarn", name="Practice lake", species="trout", latitude_deg=44.0,
    longitude_deg=-115.0, day="2026-04-14", begin=timedelta(hours=6, minutes=30),
    utc_offset_min=-420, bottoms_m=(14.0, 16.0, 12.0, 18.0), shallowest_way_m=8.0,
    deepest_way_m=30.0, turn_m=TURN_M,
)
RIVER: Final = PracticeWater(
    file="lower_skerrel", name="Practice river", species="striper", latitude_deg=38.5,
    longitude_deg=-121.5, day="2026-04-10", begin=timedelta(hours=6, minutes=30),
    utc_offset_min=-420, bottoms_m=(2.2, 2.5, 3.0), shallowest_way_m=1.8, deepest_way_m=3.5,
    turn_m=25.0,
)


@cache
def _chart(file: str) -> DepthGrid:
    return decode(DepthGrid, _read(f"charts/{file}.json"))


@cache
def _features(file: str) -> tuple[Feature, ...]:
    return tuple(decode(Feature, one) for one in _read(f"waters/{file}.json")["features"])


def _read(path: str) -> Any:
    return json.loads((Path(settings.ROOT) / "demo" / path).read_text("utf-8"))


def water_of(world: Standard) -> PracticeWater:
    """Return the water that a world lies in."""
    return RIVER if isinstance(world, River) else LAKE


def fall_of(world: Standard) -> float:
    """Return by how much the water stands below its chart, m."""
    return world.fall_m if isinstance(world, River) else 0.0


def empty_world_of_day(day: PracticeDay) -> Standard:
    """Return a day's world as it lies in its water, before any boat was on it."""
    world = world_of(day.world, day.seed)
    if isinstance(world, River):
        world.lay(_bars(path_of(day)))
    return world


def world_of_day(day: PracticeDay) -> Standard:
    """Return a day's world as it lies in its water, with the boat where it has been."""
    world = empty_world_of_day(day)
    # Of the last minutes: an earlier version kept none.
    for minute, (share, bottom_m) in enumerate(day.way, day.minutes - len(day.way)):
        world.over(minute, share, bottom_m)
    return world


def path_of(day: PracticeDay) -> tuple[GeoPoint, ...]:
    """Return the boat's way."""
    return tuple(decode(GeoPoint, place) for place in day.path)


def _bars(path: Sequence[GeoPoint]) -> list[tuple[float, float]]:
    """Where bars and necks lie along a way, and how good each is."""
    return [
        (share_of(path, feature.corners[0]), GOOD[feature.kind])
        for feature in RIVER.features if feature.kind in GOOD and min(
            math.hypot(*offset_m(place, feature.corners[0])) for place in path
        ) <= BARS_WITHIN_M
    ]
