"""Kill −9 in a burst of taps: no acknowledged event is missing, nothing is half-written."""

from __future__ import annotations

import http.client
import sqlite3
import threading
import time
import uuid
from pathlib import Path

from running import ApiUser, RunningServer


def test_no_acknowledged_event_is_lost(tmp_path: Path, demo_database: Path):
    server = RunningServer(tmp_path, template=demo_database)
    server.start()
    acknowledged: list[str] = []
    try:
        user = ApiUser(server.url)
        trip = user.get("/api/trips/")["trips"][0]["id"]
        document = user.get(f"/api/trips/{trip}/")

        def burst() -> None:
            while True:
                event = {
                    "id": str(uuid.uuid4()),
                    "at_s": time.time() - document["clock_shift_s"],
                    "type": "hit",
                    "payload": {"rod_id": "rod-1"},
                }
                try:
                    answer = user.post(f"/api/trips/{trip}/events/", {"events": [event]})
                except (OSError, http.client.HTTPException):
                    return
                acknowledged.extend(answer["added"])

        threads = [threading.Thread(target=burst) for _ in range(3)]
        for thread in threads:
            thread.start()
        time.sleep(2.5)
        server.kill()
        for thread in threads:
            thread.join(timeout=30)
        assert len(acknowledged) > 20
        server.start()
        user = ApiUser(server.url)
        kept = {event["id"] for event in user.get(f"/api/trips/{trip}/events/")["events"]}
        assert set(acknowledged) <= kept
        # What was under way is there whole or not at all, and the view still computes.
        hits = sum(rod["tally"]["hits"] for rod in user.get(f"/api/trips/{trip}/fish/")["rods"])
        assert hits >= len(acknowledged)
    finally:
        server.stop()
    with sqlite3.connect(tmp_path / "coldwake.sqlite3") as database:
        assert database.execute("PRAGMA integrity_check").fetchone() == ("ok",)
