"""Start a trip: the water, the species, and a copy of the outfit."""

from __future__ import annotations

import uuid
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

from django.db import transaction

from coldwake_core.chart.features import KEEP_OUT
from coldwake_core.chart.grid import MOST_CARRIED, DepthGrid
from coldwake_core.checks import require_choice, require_text
from coldwake_core.decode import decode, encode
from coldwake_core.errors import InvalidInputError, UnknownItemError
from coldwake_core.gear.setup import RodSetup, build_rig
from coldwake_core.gear.tackle import Outfit as CoreOutfit
from coldwake_core.record.old import read_trip
from coldwake_core.record.payloads import check_uuid
from common.errors import ConflictError
from locker.models import Outfit
from plans.models import Plan
from waters.chart_out import chart_of, features_of
from waters.models import Water
from waters.sun import sun_of_day

from ..earlier import earlier_days
from ..models import Trip
from ..queries import trip_now
from .append_events import AppendEvents

MOST_TRIPS = 20
MOST_READINGS = 200
SPECIES = ("trout", "kokanee", "striper")


@dataclass(frozen=True, kw_only=True)
class StartTrip:
    """Start a trip for a user on one of their waters with one of their outfits."""

    owner: Any
    name: object
    water_id: object
    outfit_id: object
    species: object
    started_at: datetime
    clock_shift_s: float = 0.0
    trip_id: object = None
    plan_id: object = None
    carried: object = None
    """The outfit that a phone carried along, for a trip that was started without a server."""

    def check(self) -> dict[str, Any]:
        """Return the fields of the trip; raises CoreError naming what cannot be."""
        water = Water.objects.filter(pk=_key(self.water_id), owner_id=self.owner.pk).first()
        if water is None:
            raise UnknownItemError("water_id", self.water_id, "one of your waters")
        outfit = Outfit.objects.filter(pk=_key(self.outfit_id), owner_id=self.owner.pk).first()
        if outfit is None:
            raise UnknownItemError("outfit_id", self.outfit_id, "one of your outfits")
        offset_min = water.utc_offset_min_at(self.started_at)
        offset = timedelta(minutes=offset_min)
        sun = sun_of_day(
            latitude_deg=water.latitude_deg, longitude_deg=water.longitude_deg,
            day=(self.started_at.astimezone(UTC) + offset).date(),
            utc_offset_min=offset_min,
        )
        species, plan = require_choice("species", self.species, SPECIES), self._plan()
        return {
            "name": require_text("name", self.name, longest=120),
            "boat": outfit,
            "water": water,
            "water_name": water.name,
            "species": species,
            "started_at": self.started_at,
            "utc_offset_min": offset_min,
            "bottom_m": water.deepest_m,
            "outfit": encode(
                outfit.core() if self.carried is None
                else decode(CoreOutfit, self.carried, field="outfit")
            ),
            "sun": encode(sun),
            "clock_shift_s": self.clock_shift_s,
            "readings": earlier_readings(outfit),
            "chart": carried_chart(water),
            "keep_out": carried_keep_out(water),
            "rules": water.rules,
            "plan": plan,
            "earlier": earlier_days(
                self.owner, species=species, water_name=water.name,
                started_at=self.started_at, plan=plan,
            ),
        }

    def _plan(self) -> Any:
        if self.plan_id is None:
            return None
        key = uuid.UUID(check_uuid("plan_id", self.plan_id))
        plan = Plan.objects.filter(pk=key, owner_id=self.owner.pk).first()
        if plan is None:
            raise UnknownItemError("plan_id", self.plan_id, "one of your plans")
        if plan.water_id != _key(self.water_id) or plan.species != self.species:
            raise InvalidInputError(
                "plan_id", self.plan_id, "a plan for this water and species, or none"
            )
        return plan.document

    def execute(self) -> Trip:
        """Start it; a trip that was started under this id already is returned as it is."""
        key = None if self.trip_id is None else uuid.UUID(check_uuid("id", self.trip_id))
        fields = self.check()
        trip = Trip(owner_id=self.owner.pk, **({} if key is None else {"id": key}), **fields)
        core, _ = read_trip(trip.document())
        # A phone that began alone has said itself what is on the rods.
        setups = [] if self.carried is not None else last_rigging(fields["boat"], core.outfit)
        with transaction.atomic():
            started = None if key is None else Trip.objects.filter(pk=key).first()
            if started is not None and started.owner_id == self.owner.pk:
                return started
            if started is not None:
                raise ConflictError({"id": [f"{key} must be new: make another UUID."]})
            trip.save()
            put_rigged(trip, setups)
        return trip


def carried_chart(water: Water) -> Any:
    """The chart at today's level, no larger than a phone reads in a moment."""
    chart = chart_of(water)
    return None if chart is None else carried_chart_of(chart)


def carried_chart_of(chart: DepthGrid) -> Any:
    """A chart, no larger than a phone reads in a moment."""
    return encode(chart.coarser(MOST_CARRIED))


def put_rigged(trip: Trip, setups: list[RodSetup]) -> None:
    """Put on a trip's rods what is on them as it begins."""
    if setups:
        AppendEvents(trip, [
            {
                "id": str(uuid.uuid4()), "at_s": trip.started_at.timestamp(),
                "type": "rod_rigged", "payload": encode(setup),
            }
            for setup in setups
        ]).execute()


def carried_keep_out(water: Water) -> Any:
    """Closed water and hazards, as they stand on the chart today."""
    return [encode(feature) for feature in features_of(water) if feature.kind in KEEP_OUT]


def last_rigging(boat: Outfit, aboard: CoreOutfit) -> list[RodSetup]:
    """Return what was on the rods when the last trip with this boat was left.

    Rods stay rigged between trips; what is no longer aboard is left out.
    """
    trip = boat.trips.first()
    if trip is None:
        return []
    rods = trip_now(trip).state.rods.values()
    return [rod.setup for rod in rods if rod.setup and _is_aboard(aboard, rod.setup)]


def _is_aboard(boat: CoreOutfit, setup: RodSetup) -> bool:
    try:
        build_rig(boat, setup)
    except InvalidInputError:
        return False
    return True


def earlier_readings(outfit: Outfit) -> list[Any]:
    """Return depths seen on earlier trips with the boat of this outfit, those set aside left out.

    What was learnt of a line on the water serves every later trip. Only readings whose tackle is
    still aboard are taken.
    """
    kept: dict[str, Any] = {}
    boat = outfit.core()
    for trip in outfit.trips.all()[:MOST_TRIPS]:
        state = trip_now(trip).state
        for reading in state.depth_readings:
            heard = reading.id not in state.set_aside and _is_aboard(boat, reading.setup)
            if heard and len(kept) < MOST_READINGS:
                kept[reading.id] = encode(reading)
    return list(kept.values())


def _key(value: object) -> int:
    """A database key, or one that no row has."""
    usable = isinstance(value, int) and not isinstance(value, bool) and 0 < value < 2**53
    return int(value) if usable else 0  # type: ignore[call-overload]
