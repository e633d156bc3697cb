"""Begin a simulated day: an ordinary trip with a boat of one's own, on made-up water."""

from __future__ import annotations

import secrets
import time
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any, Final

from django.db import transaction

from coldwake_core.checks import require_number
from coldwake_core.decode import encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.lakesim.standard import Standard
from coldwake_core.lakesim.worlds import world_of
from common.keys import key_of
from locker.models import Outfit
from trips.actions.start_trip import carried_chart_of, last_rigging, put_rigged
from trips.models import Trip
from waters.sun import sun_of_day

from ..models import PracticeDay
from ..water import PracticeWater, fall_of, water_of

MOST_SEED: Final = 1_000_000
MOST_OPEN: Final = 20


def _yes_or_no(field: str, told: object) -> bool:
    if not isinstance(told, bool):
        raise InvalidInputError(field, told, "true or false")
    return told


@dataclass(frozen=True, kw_only=True)
class StartPractice:
    """A day by its number, or a surprise."""

    owner: Any
    outfit_id: object
    seed: object = None
    advice: object = True
    world: object = "lake"
    taps: object = False

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
        advice, taps = _yes_or_no("advice", self.advice), _yes_or_no("taps", self.taps)
        if PracticeDay.objects.filter(
            trip__owner_id=self.owner.pk, trip__is_ended=False
        ).count() >= MOST_OPEN:
            raise InvalidInputError("seed", seed, f"one of at most {MOST_OPEN} open days")
        world = world_of(self.world, seed)
        water = water_of(world)
        path = water.way(world.bottom_m + fall_of(world))
        with transaction.atomic():
            trip = self._trip(boat, seed, world, water)
            put_rigged(trip, last_rigging(boat, boat.core()))
            return PracticeDay.objects.create(
                trip=trip, seed=seed, looked_s=time.time(), advice=advice, taps=taps,
                world=str(self.world),
                path=[encode(place) for place in path],
            )

    def _trip(self, boat: Outfit, seed: int, world: Standard, water: PracticeWater) -> Trip:
        day, offset = datetime.fromisoformat(water.day), timedelta(minutes=water.utc_offset_min)
        begin, wall_s = day.replace(tzinfo=UTC) - offset + water.begin, time.time()
        sun = sun_of_day(
            latitude_deg=water.latitude_deg, longitude_deg=water.longitude_deg, day=day.date(),
            utc_offset_min=water.utc_offset_min,
        )
        return Trip.objects.create(
            owner_id=self.owner.pk, name=f"Practice day {seed}", water_name=water.name,
            species=water.species, started_at=begin, utc_offset_min=water.utc_offset_min,
            bottom_m=min(world.bottom_m, 40.0), outfit=encode(boat.core()), sun=encode(sun),
            clock_shift_s=wall_s - begin.timestamp(), clock_set_s=wall_s, clock_pace=1.0,
            is_practice=True, chart=carried_chart_of(water.chart),
            keep_out=[
                encode(one) for one in water.features if one.kind in ("closed_ring", "hazard")
            ],
        )
