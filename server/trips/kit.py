"""What a phone carries along: all that a trip is started from where there is no server."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any, Final

from django.db.models import F, Max

from coldwake_core.decode import encode
from locker.models import Outfit
from plans.models import Plan
from waters.models import Water
from waters.sun import sun_of_day

from .actions.start_trip import (
    SPECIES,
    carried_chart,
    carried_keep_out,
    earlier_readings,
    last_rigging,
)
from .earlier import earlier_days
from .models import Trip

DAYS: Final = 45
"""How many days ahead the light of each water is carried."""
MOST_WATERS: Final = 12
"""A chart of the most cells is some 400 kB: a phone's browser has room for a few megabytes."""
MOST_OUTFITS: Final = 12
MOST_PLANS: Final = 20
MOST_EARLIER: Final = 6


def kit_of(owner: Any, now: datetime) -> dict[str, Any]:
    """Return the kit: waters with their light, outfits as they were left rigged, plans to come."""
    today = now.astimezone(UTC).date() - timedelta(days=1)
    # Where they fished last they will most likely fish next.
    mine = Water.objects.filter(owner_id=owner.pk).annotate(last=Max("trips__started_at"))
    waters = list(mine.order_by(F("last").desc(nulls_last=True), "name", "pk"))
    plans = Plan.objects.filter(owner_id=owner.pk, day__gte=today).order_by("day")[:MOST_PLANS]
    return {
        "made_at_s": now.timestamp(),
        "waters": [_water(owner, water, now, today) for water in waters[:MOST_WATERS]],
        "left_out": [water.name for water in waters[MOST_WATERS:]],
        "outfits": [
            _outfit(outfit) for outfit in Outfit.objects.filter(owner_id=owner.pk)[:MOST_OUTFITS]
        ],
        "plans": [
            {
                "id": str(plan.pk), "water_id": plan.water_id, "species": plan.species,
                "day": plan.day.isoformat(), "plan": plan.document,
            }
            for plan in plans
        ],
    }


def _water(owner: Any, water: Water, now: datetime, first: date) -> dict[str, Any]:
    return {
        "id": water.pk, "name": water.name, "bottom_m": water.deepest_m,
        "chart": carried_chart(water), "keep_out": carried_keep_out(water), "rules": water.rules,
        "days": [_day(water, first + timedelta(days=i)) for i in range(DAYS)],
        "earlier": {
            species: earlier_days(
                owner, species=species, water_name=water.name, started_at=now, plan=None
            )[:MOST_EARLIER]
            for species in SPECIES
        },
    }


def _day(water: Water, day: date) -> dict[str, Any]:
    offset = water.utc_offset_min_at(datetime(day.year, day.month, day.day, 12, tzinfo=UTC))
    sun = sun_of_day(
        latitude_deg=water.latitude_deg, longitude_deg=water.longitude_deg, day=day,
        utc_offset_min=offset,
    )
    return {"day": day.isoformat(), "utc_offset_min": offset, "sun": encode(sun)}


def _outfit(outfit: Outfit) -> dict[str, Any]:
    core = outfit.core()
    trip: Trip | None = outfit.trips.first()
    rigged = [] if trip is None else last_rigging(outfit, core)
    return {
        "id": outfit.pk, "name": outfit.name, "outfit": encode(core),
        "readings": earlier_readings(outfit), "rigged": [encode(setup) for setup in rigged],
    }
