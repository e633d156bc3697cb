"""Load the made-up demo scenario: waters, outfits, past trips and one in progress."""

from __future__ import annotations

import json
import time
import uuid
from datetime import datetime, timedelta, timezone
from pathlib import Path
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand
from django.db import transaction

from accounts.demo import DEMO_USERNAME
from coldwake_core.chart.grid import DepthGrid, GeoPoint
from coldwake_core.decode import decode, encode
from coldwake_core.gear.locker import PIECES, decode_piece
from locker.actions.import_pieces import add_starter
from locker.actions.save_outfit import FIELDS
from locker.actions.save_piece import set_aboard, stored
from locker.models import Outfit, TacklePiece
from plans.actions.save_plan import SavePlan
from waters.models import Survey, Water
from waters.soundings_io import read_soundings

from ...actions.append_events import AppendEvents
from ...actions.start_trip import StartTrip
from ...models import Trip

DEMO = Path(settings.ROOT) / "demo"
REST_AFTER_S = 120.0
"""The demo's clock rests two minutes after the last tap: a newcomer may look as long as they like,
and no place, bait or fish on a rod grows old meanwhile."""


def _read(kind: str, name: str) -> dict[str, Any]:
    document: dict[str, Any] = json.loads((DEMO / kind / f"{name}.json").read_text("utf-8"))
    return document


class Command(BaseCommand):
    """Load the demo once; later runs keep what was done to it."""

    help = "Load the demo scenario, or wake it up when it is there already."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        """Create what is missing."""
        user, created = get_user_model().objects.get_or_create(username=DEMO_USERNAME)
        if created:
            user.set_unusable_password()
            user.save()
        if not TacklePiece.objects.filter(owner=user).exists():
            add_starter(user, None)
        waters = {}
        for path in sorted((DEMO / "waters").glob("*.json")):
            data = _read("waters", path.stem)
            data.pop("kind")
            if (DEMO / "charts" / path.name).exists():
                data["chart"] = encode(decode(DepthGrid, _read("charts", path.stem)))
            waters[path.stem], _ = Water.objects.get_or_create(
                owner=user, name=data.pop("name"), defaults=data
            )
            self._load_soundings(waters[path.stem], DEMO / "soundings" / f"{path.stem}.csv")
        outfits = {}
        for path in sorted((DEMO / "outfits").glob("*.json")):
            data = _read("outfits", path.stem)
            outfits[path.stem] = self._load_outfit(user, data)
        # In their order of time: a later trip begins with the readings of those before it.
        documents = [_read("trips", path.stem) for path in (DEMO / "trips").glob("*.json")]
        for data in sorted(documents, key=lambda document: str(document["local_date"])):
            trip = Trip.objects.filter(owner=user, name=data["name"]).first()
            if trip is None:
                self._load_trip(user, data, waters[data["water"]], outfits[data["outfit"]])
            elif trip.rest_after_s is None:
                # From before its clock could rest.
                trip.rest_after_s = REST_AFTER_S
                trip.save(update_fields=["rest_after_s"])
        self.stdout.write(f"Demo ready for the account “{DEMO_USERNAME}”.")

    def _load_soundings(self, water: Water, path: Path) -> None:
        """What its chart was made from: soundings that are added go beside them."""
        if not path.exists() or water.surveys.exists():
            return
        found = read_soundings(
            path.read_text("utf-8"), kind="csv", unit="m", swap=False,
            home=GeoPoint(latitude_deg=water.latitude_deg, longitude_deg=water.longitude_deg),
        )
        Survey.objects.create(
            water=water, name="Invented soundings", below_m=0.0,
            points=[[s.place.latitude_deg, s.place.longitude_deg, s.depth_m] for s in found],
        )

    def _load_outfit(self, user: Any, data: dict[str, Any]) -> Outfit:
        """A boat, and its tackle in the locker of its owner."""
        boat = {name: data[name] for name in FIELDS}
        outfit, is_new = Outfit.objects.get_or_create(
            owner=user, name=data["boat_name"], defaults={"data": boat}
        )
        for kind, (_, name) in PIECES.items():
            for item in data.get(name, []) if is_new else []:
                piece, _ = TacklePiece.objects.get_or_create(
                    owner=user, kind=kind, key=item["id"],
                    defaults={"name": item["name"], "data": stored(decode_piece(kind, item))},
                )
                set_aboard(outfit, piece, item.get("count", 1))
        outfit.core()
        return outfit

    def _load_trip(self, user: Any, data: dict[str, Any], water: Water, outfit: Outfit) -> None:
        zone = timezone(timedelta(minutes=data["utc_offset_min"]))

        def moment(clock: str) -> datetime:
            return datetime.fromisoformat(f"{data['local_date']}T{clock}").replace(tzinfo=zone)

        plan = None
        if "plan" in data:
            asked = {**data["plan"], "water_id": water.pk, "species": data["species"]}
            plan, _ = SavePlan(
                owner=user, plan_id=uuid.UUID(data["plan"]["id"]),
                data={k: v for k, v in asked.items() if k != "id"} | {"day": data["local_date"]},
            ).execute()
        trip = StartTrip(
            owner=user, name=data["name"], water_id=water.pk, outfit_id=outfit.pk,
            species=data["species"], started_at=moment(data["local_start"]),
            clock_shift_s=time.time() - moment(data["local_now"]).timestamp(),
            plan_id=None if plan is None else str(plan.pk),
        ).execute()
        AppendEvents(trip, [
            {
                "id": event["id"], "at_s": moment(event["at_local"]).timestamp(),
                "type": event["type"], "payload": event["payload"],
            }
            for event in data["events"]
        ]).execute()
        # Only now: while it is told, its clock runs ahead of what has been told.
        trip.rest_after_s = REST_AFTER_S
        trip.save(update_fields=["rest_after_s"])
