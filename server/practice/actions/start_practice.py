"""Begin a simulated day: an ordinary trip with a boat of one's own, on made-up water."""

from __future__ import annotations

import json
import secrets
import time
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import cache
from pathlib import Path
from typing import Any, Final

from django.conf import settings
from django.db import transaction

from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid
from coldwake_core.checks import require_number
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.lakesim.sailing import along
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.worlds import world_of
from common.keys import key_of
from locker.models import Outfit
from trips.actions.start_trip import carried_chart_of, last_rigging, put_rigged
from trips.models import Trip
from waters.sun import sun_of_day

from ..models import PracticeDay

MOST_SEED: Final = 1_000_000
MOST_OPEN: Final = 20
OFFSET_MIN: Final = -420
PLACE: Final = (44.0, -115.0)
"""Where the made-up lake lies; its light is that of a day in April."""
DAY: Final = "2026-04-14"
BEGIN: Final = timedelta(hours=6, minutes=30)
BOTTOMS_M: Final = (14.0, 16.0, 12.0, 18.0)


@cache
def practice_water() -> tuple[DepthGrid, tuple[Feature, ...]]:
    """Return chart and features of the made-up lake."""
    chart = json.loads((Path(settings.ROOT) / "demo/charts/sallow_tarn.json").read_text("utf-8"))
    water = json.loads((Path(settings.ROOT) / "demo/waters/sallow_tarn.json").read_text("utf-8"))
    features = tuple(decode(Feature, one) for one in water["features"])
    return decode(DepthGrid, chart), features


def way_of(depth_m: float) -> Any:
    """Return a way for the boat, along the depth or the next that has one."""
    chart, features = practice_water()
    for wanted in (min(max(depth_m, 8.0), 30.0), *BOTTOMS_M):
        try:
            return along(chart, wanted, features)
        except InvalidInputError:
            continue
    raise InvalidInputError("seed", depth_m, "another day: this one has no way for the boat")


@dataclass(frozen=True, kw_only=True)
class StartPractice:
    """A day by its number, or a surprise."""

    owner: Any
    outfit_id: object
    seed: object = None
    advice: object = True
    world: object = "lake"

    def execute(self) -> PracticeDay:
        """Begin it; raises CoreError naming what cannot be."""
        boat = Outfit.objects.filter(
            pk=key_of(str(self.outfit_id)), owner_id=self.owner.pk
        ).first()
        if boat is None:
            raise InvalidInputError("outfit_id", self.outfit_id, "one of your boats")
        if self.seed is None:
            seed = secrets.randbelow(MOST_SEED)
        else:
            seed = int(require_number("seed", self.seed, low=0, high=MOST_SEED))
        if not isinstance(self.advice, bool):
            raise InvalidInputError("advice", self.advice, "true or false")
        if PracticeDay.objects.filter(
            trip__owner_id=self.owner.pk, trip__is_ended=False
        ).count() >= MOST_OPEN:
            raise InvalidInputError("seed", seed, f"one of at most {MOST_OPEN} open days")
        world = world_of(self.world, seed)
        path = way_of(world.bottom_m)
        with transaction.atomic():
            trip = self._trip(boat, seed, world)
            put_rigged(trip, last_rigging(boat, boat.core()))
            return PracticeDay.objects.create(
                trip=trip, seed=seed, looked_s=time.time(), advice=self.advice,
                world=str(self.world),
                path=[encode(place) for place in path],
            )

    def _trip(self, boat: Outfit, seed: int, world: Standard) -> Trip:
        chart, features = practice_water()
        midnight = datetime.fromisoformat(DAY).replace(tzinfo=UTC) - timedelta(minutes=OFFSET_MIN)
        begin, wall_s = midnight + BEGIN, time.time()
        sun = sun_of_day(
            latitude_deg=PLACE[0], longitude_deg=PLACE[1],
            day=datetime.fromisoformat(DAY).date(), utc_offset_min=OFFSET_MIN,
        )
        return Trip.objects.create(
            owner_id=self.owner.pk, name=f"Practice day {seed}", water_name="Practice lake",
            species="trout", started_at=begin, utc_offset_min=OFFSET_MIN,
            bottom_m=min(world.bottom_m, 40.0), outfit=encode(boat.core()), sun=encode(sun),
            clock_shift_s=wall_s - begin.timestamp(), clock_set_s=wall_s, clock_pace=1.0,
            is_practice=True, chart=carried_chart_of(chart),
            keep_out=[encode(one) for one in features if one.kind in ("closed_ring", "hazard")],
        )
