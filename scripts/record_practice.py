"""Fish two practice days by a simple angler, and write them as lines of JSON for the tests.

The angler sets out what the boat carries, lets it out again after each fish, slows down and goes
deeper once, and on the river casts for an hour: enough for every kind of event of a practised day.
"""

from __future__ import annotations

import gzip
import os
import sys
import tempfile
import time
import uuid
from pathlib import Path
from typing import Any, Final

ROOT: Final = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT / "server"))
os.environ["COLDWAKE_VAR"] = tempfile.mkdtemp(prefix="coldwake-record-")
os.environ["DJANGO_SETTINGS_MODULE"] = "config.settings"

import django  # noqa: E402

django.setup()

from django.contrib.auth import get_user_model  # noqa: E402
from django.core.management import call_command  # noqa: E402
from rest_framework.test import APIClient  # noqa: E402

from trips.models import Trip  # noqa: E402

DAYS: Final = (("lake", 12), ("river", 7))
NUMBERS: Final = {"downrigger": 6.0, "leadcore": 30.0, "flat": 28.0}
EVERY_S: Final = 1200.0
_now: list[float] = [time.time()]


class Angler:
    """Somebody on the water, through the API alone."""

    def __init__(self, client: APIClient, trip_id: str) -> None:
        """Look at the boat."""
        self.client, self.trip_id = client, trip_id
        trip = client.get(f"/api/trips/{trip_id}/").json()
        self.begin_s: float = trip["started_at_s"]
        self.told = 0

    def tell(self, minute: float, kind: str, **payload: Any) -> None:
        """Record an act."""
        self.told += 1
        event = {
            "id": str(uuid.uuid5(uuid.UUID(self.trip_id), f"act-{self.told}")), "type": kind,
            "payload": payload, "at_s": self.begin_s + 60.0 * minute + 0.01 * self.told,
        }
        answer = self.client.post(
            f"/api/trips/{self.trip_id}/events/", {"events": [event]}, format="json"
        )
        if answer.status_code != 200:
            print(minute, kind, payload, answer.json()["message"])

    def rods(self) -> list[dict[str, Any]]:
        """What the rods do now."""
        found: list[dict[str, Any]] = self.client.get(
            f"/api/trips/{self.trip_id}/fish/"
        ).json()["rods"]
        return found

    def let_out(self, minute: float, factor: float = 1.0, *, all_of_them: bool = False) -> None:
        """Let out what is in: after a fish, or all of it for another depth."""
        for rod in self.rods():
            if rod["setup"] is None or rod["status"] == "fish_on":
                continue
            if all_of_them or rod["line"] is None:
                number = NUMBERS.get(rod["kind"], 20.0) * factor
                self.tell(minute, "line_set", rod_id=rod["id"], setting_m=number)


def fish(client: APIClient, world: str, seed: int, boat: int) -> Trip:
    """Fish a day."""
    body = {"outfit_id": boat, "seed": seed, "world": world}
    day = client.post("/api/practice/", body, format="json").json()
    road = f"/api/practice/{day['trip_id']}/"
    angler = Angler(client, day["trip_id"])
    speed = 1.7 if world == "river" else 0.75
    angler.tell(0.1, "speed_changed", speed_mps=speed)
    if world == "river":
        for rod in angler.rods()[:2]:
            plug = {**rod["setup"], "lure_id": "rattle-chrome", "attractor_id": None,
                    "leader_m": 0.9, "bait_id": None, "tow_point": ""}
            angler.tell(0.2, "rod_rigged", **plug)
            angler.tell(0.4, "line_set", rod_id=rod["id"], setting_m=26.0)
    else:
        angler.let_out(0.5)
    client.post(road, {"pace": 120}, format="json")
    changed = False
    while not day["is_ended"]:
        _now[0] += EVERY_S / 120.0
        day = client.post(road, {}, format="json").json()
        minute = float(day["minutes"])
        if day["is_ended"]:
            break
        if world == "lake":
            angler.let_out(minute)
        if not changed and minute >= 240:
            changed = True
            angler.tell(minute, "speed_changed", speed_mps=0.85 * speed)
            if world == "lake":
                angler.let_out(minute, 1.6, all_of_them=True)
            else:
                for rod in angler.rods()[:2]:
                    if rod["line"] is not None:
                        angler.tell(minute, "line_in", rod_id=rod["id"])
                angler.tell(minute, "casting_begun", weight_kg=0.014, count_s=5.0, retrieve="slow")
        if world == "river" and 300 <= minute < 320:
            angler.tell(minute, "casting_ended")
    return Trip.objects.get(pk=day["trip_id"])


def main() -> None:
    """Write both."""
    time.time = lambda: _now[0]
    call_command("migrate", verbosity=0)
    call_command("load_demo", verbosity=0)
    owner = get_user_model().objects.get(username="demo")
    # The demo's own login is good in a browser of this machine alone.
    owner.username = "angler"
    owner.save()
    client = APIClient(SERVER_NAME="localhost")
    client.force_login(owner)
    boat = next(one for one in client.get("/api/trips/").json()["outfits"] if "16" in one["name"])
    for world, seed in DAYS:
        trip = fish(client, world, seed, boat["id"])
        data = b"".join(client.get(f"/api/trips/{trip.pk}/export.jsonl").streaming_content)
        path = ROOT / f"tests/server/data/practice_{world}.jsonl.gz"
        path.write_bytes(gzip.compress(data, mtime=0))
        kinds: dict[str, int] = {}
        for event in trip.events.all():
            kinds[event.type] = kinds.get(event.type, 0) + 1
        print(world, len(data), kinds)


if __name__ == "__main__":
    main()
