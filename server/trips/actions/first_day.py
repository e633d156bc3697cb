"""From nothing to a trip with its rods rigged: boat, tackle and water made in one go."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from django.db import transaction

from coldwake_core.checks import require_number
from coldwake_core.decode import encode
from coldwake_core.record.old import read_trip
from coldwake_core.record.payloads import SpeedChanged, check_uuid
from coldwake_core.spread.opening import build_opening
from coldwake_core.trip.open_trip import OpenTrip
from locker.actions.import_pieces import add_starter
from locker.actions.save_outfit import SaveOutfit
from locker.boats import usual_boat
from waters.actions.save_water import SaveWater

from ..models import Trip
from .append_events import AppendEvents
from .start_trip import StartTrip

GUESSED_LATITUDE_DEG = 45.0
"""Between the trout waters of north and south, until the user says where the water is: only the
hours of light hang on it, and the page says that it is a guess."""
MIN_A_DEGREE = 4.0


@dataclass(frozen=True, kw_only=True)
class FirstDay:
    """Make a boat to begin from with the starter locker aboard, a water, and a trip on it."""

    owner: Any
    boat_name: object
    species: object
    water_name: object
    deepest_m: object
    utc_offset_min: object
    timezone: object
    started_at: datetime
    trip_id: object = None
    latitude_deg: object = None
    longitude_deg: object = None

    def execute(self) -> Trip:
        """Make all of it, or nothing."""
        boat = usual_boat(self.boat_name, field="boat_name")
        offset = require_number(
            "utc_offset_min", self.utc_offset_min, low=-840.0, high=840.0, unit="min"
        )
        placed = self.latitude_deg is not None and self.longitude_deg is not None
        with transaction.atomic():
            if self.trip_id is not None:
                # Pressed twice, or sent again: it is one first day.
                key = check_uuid("id", self.trip_id)
                known = Trip.objects.filter(pk=key, owner_id=self.owner.pk).first()
                if known is not None:
                    return known
            outfit = SaveOutfit(owner=self.owner, data=boat).execute()
            add_starter(self.owner, outfit)
            water = SaveWater(owner=self.owner, data={
                "name": self.water_name, "deepest_m": self.deepest_m,
                "latitude_deg": self.latitude_deg if placed else GUESSED_LATITUDE_DEG,
                "longitude_deg": self.longitude_deg if placed else offset / MIN_A_DEGREE,
                "utc_offset_min": offset, "timezone": self.timezone, "rules": None,
            }).execute()
            trip = StartTrip(
                owner=self.owner, name="First trip", water_id=water.pk, outfit_id=outfit.pk,
                species=self.species, started_at=self.started_at, trip_id=self.trip_id,
            ).execute()
            self._rig(trip)
        return trip

    def _rig(self, trip: Trip) -> None:
        """Put on each rod what suits these fish together, and set the speed it was chosen for."""
        at_s = self.started_at.timestamp()
        core, _ = read_trip(trip.document())
        opening = build_opening(OpenTrip(core, []).now, at_s)
        happened: list[tuple[str, Any]] = [
            ("speed_changed", SpeedChanged(speed_mps=opening.speed_mps)),
            *(("rod_rigged", rod.setup) for rod in opening.rods),
        ]
        AppendEvents(trip, [
            {"id": str(uuid.uuid4()), "at_s": at_s, "type": kind, "payload": encode(payload)}
            for kind, payload in happened
        ]).execute()
