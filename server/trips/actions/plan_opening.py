"""The opening spread of a planned day, for a boat that has not left yet. Nothing is kept."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Any

from coldwake_core.checks import require_number
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError
from coldwake_core.places.plan.river import RiverDay
from coldwake_core.record.events import decode_event
from coldwake_core.record.old import read_trip
from coldwake_core.spread.dress import MOST_EARNED, Earned
from coldwake_core.spread.planned import PhaseOpening, phase_opening
from coldwake_core.trip.open_trip import OpenTrip
from plans.actions.plan_day import PlanDay, shallows_of
from waters.models import Water

from ..models import Trip
from .start_trip import StartTrip


@dataclass(frozen=True, kw_only=True)
class PlanOpening:
    """What to open a phase of a day with: the day as it is asked for, the boat, a moment."""

    owner: Any
    water: Water
    day: Any
    outfit_id: object
    at_s: object
    begin: object = None

    def execute(self) -> PhaseOpening:
        """Return the spread; raises CoreError naming what cannot be."""
        if not isinstance(self.day, dict):
            raise InvalidInputError("day", self.day, "the day as it was asked for")
        at_s = require_number("at_s", self.at_s, low=0.0, high=1e10)
        told = [] if self.begin is None else self.begin
        if not isinstance(told, list) or len(told) > MOST_EARNED:
            raise InvalidInputError("begin", None, f"a list of at most {MOST_EARNED} looks")
        earned = [decode(Earned, one, field=f"begin[{i}]") for i, one in enumerate(told)]
        # A few members say where the middle of the band is, which is all that a spread asks.
        asked = {**self.day, "rough": True}
        planned = PlanDay(water=self.water, data=asked).execute()
        fields = StartTrip(
            owner=self.owner, name="planned", water_id=self.water.pk, outfit_id=self.outfit_id,
            species=asked["species"], started_at=datetime.fromtimestamp(at_s, UTC),
        ).check()
        trip = Trip(owner_id=self.owner.pk, **{**fields, "plan": encode(planned.plan)})
        core, _ = read_trip(trip.document())
        chosen = [
            decode_event({
                "id": str(uuid.uuid4()), "at_s": at_s, "type": "school_chosen",
                "payload": {"topic": topic, "school": school},
            })
            for topic, school in (asked.get("schools") or {}).items()
        ]
        fell_m = 0.0
        if asked.get("river"):
            fell_m = decode(RiverDay, asked["river"], field="river").fell_m
        return phase_opening(OpenTrip(core, chosen).now, at_s, [
            replace(bar, depth_m=max(bar.depth_m - fell_m, 0.0)) for bar in shallows_of(self.water)
        ], earned)
