"""Nothing lost, nothing twice, and every fault leaves a trace: what delivery stands on."""

from __future__ import annotations

import gzip
import json
import logging
import re
import shutil
import sqlite3
import threading
import uuid
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
from django.core.management import call_command
from test_locker_api import PIECES, SPOON
from test_trips_api import event, fish, open_boat, post

from coldwake_core.record.history import History
from running import ApiUser, RunningServer
from trips.actions.append_events import AppendEvents
from trips.models import Event, Trip
from trips.queries import keeping, trip_now_s

pytestmark = pytest.mark.django_db
OLD = sorted((Path(__file__).parent / "data").glob("*.sqlite3.gz"))


def test_a_clock_that_is_wrong_is_told_apart_from_a_tap_that_is(client_in: Any, demo: Trip):
    ahead = post(client_in, demo, event(demo, "hit", ago_s=-3600.0, rod_id="rod-1")).json()
    assert (ahead["code"], ahead["field"]) == ("clock", "events[0].at_s")
    behind = post(client_in, demo, event(demo, "hit", ago_s=9e6, rod_id="rod-1")).json()
    assert (behind["code"], behind["field"]) == ("clock", "events[0].at_s")


def test_every_answer_says_version_and_time(client_in: Any, demo: Trip):
    for road in ("/api/session/", "/api/health/", "/api/no-such/", f"/api/trips/{uuid.uuid4()}/"):
        answer = client_in.get(road)
        assert answer["X-Coldwake-Version"]
        assert abs(float(answer["X-Coldwake-Now"]) - datetime.now(UTC).timestamp()) < 5.0
    assert client_in.get("/api/health/").json()["ok"] is True
    missing = client_in.get("/api/no-such/")
    assert (missing.status_code, missing.json()["code"]) == (404, "not_found")


def test_the_same_id_with_another_payload_is_refused_by_its_place(client_in: Any, demo: Trip):
    first = event(demo, "hit", rod_id="rod-1")
    assert post(client_in, demo, first).json()["added"] == [first["id"]]
    # Sent again with its time mended, as after a lost answer: the same event.
    assert post(client_in, demo, {**first, "at_s": first["at_s"] - 30.0}).json()["known"] == [
        first["id"]
    ]
    fresh = event(demo, "hit", rod_id="rod-2")
    other = post(client_in, demo, fresh, {**first, "payload": {"rod_id": "rod-2"}})
    assert (other.status_code, other.json()["field"]) == (409, "events[1].id")
    assert not Event.objects.filter(pk=fresh["id"]).exists()


def test_the_same_id_twice_in_a_batch_is_one_event_or_a_conflict(client_in: Any, demo: Trip):
    first = event(demo, "hit", rod_id="rod-1")
    answer = post(client_in, demo, first, first).json()
    assert (answer["added"], answer["known"]) == ([first["id"]], [first["id"]])
    second = event(demo, "hit", rod_id="rod-1")
    answer = post(client_in, demo, second, {**second, "payload": {"rod_id": "rod-2"}})
    assert (answer.status_code, answer.json()["field"]) == (409, "events[1].id")
    assert not Event.objects.filter(pk=second["id"]).exists()


def test_an_id_that_stands_on_another_trip_is_named(client_in: Any, demo: Trip):
    other = Trip.objects.exclude(pk=demo.pk).first()
    taken = str(other.events.first().pk)
    answer = post(client_in, demo, event(demo, "hit", rod_id="rod-1"), {
        **event(demo, "hit", rod_id="rod-1"), "id": taken,
    })
    assert (answer.status_code, answer.json()["field"]) == (409, "events[1].id")


def test_an_event_the_program_fails_on_is_named_and_written_down(
    client_in: Any, demo: Trip, monkeypatch: Any, caplog: Any
):
    admit = History.admit

    def failing(self: History, item: Any, **options: Any) -> None:
        if item.type == "bait_checked":
            raise RuntimeError("a bug")
        admit(self, item, **options)

    monkeypatch.setattr(History, "admit", failing)
    with caplog.at_level(logging.ERROR):
        answer = post(
            client_in, demo, event(demo, "hit", rod_id="rod-1"),
            event(demo, "bait_checked", rod_id="rod-1"),
        )
    body = answer.json()
    assert (answer.status_code, body["code"]) == (422, "untaken")
    assert body["field"].startswith("events[1]")
    fault = re.search(r"fault ([0-9a-f]{8})", body["message"])[1]
    assert fault in caplog.text
    assert "a bug" in caplog.text


def test_a_fault_of_a_view_is_written_down_with_the_id_the_page_shows(
    client_in: Any, demo: Trip, monkeypatch: Any, caplog: Any
):
    monkeypatch.setattr("trips.api.views.trip_now", lambda trip: 1 / 0)
    client_in.raise_request_exception = False
    with caplog.at_level(logging.ERROR):
        answer = client_in.get(f"/api/trips/{demo.pk}/fish/")
    assert (answer.status_code, answer.json()["code"]) == (500, "fault")
    assert re.search(r"as ([0-9a-f]{8})", answer.json()["message"])[1] in caplog.text
    assert "ZeroDivisionError" in caplog.text


def test_events_are_asked_for_from_where_one_stands(client_in: Any, demo: Trip):
    road = f"/api/trips/{demo.pk}/events/"
    page = client_in.get(road).json()
    assert len(page["events"]) == demo.events.count() == page["after"]
    assert json.dumps(page["events"][0]["payload"])
    again = client_in.get(f"{road}?after={page['after']}")
    assert again.json() == {"events": [], "after": page["after"]}
    unchanged = client_in.get(f"{road}?after={page['after']}", HTTP_IF_NONE_MATCH=again["ETag"])
    assert (unchanged.status_code, unchanged.content) == (304, b"")
    hit = event(demo, "hit", rod_id="rod-1")
    post(client_in, demo, hit)
    news = client_in.get(f"{road}?after={page['after']}", HTTP_IF_NONE_MATCH=again["ETag"]).json()
    assert [item["id"] for item in news["events"]] == [hit["id"]]
    assert news["after"] == page["after"] + 1
    assert client_in.get(f"{road}?after=x").status_code == 422


def test_what_another_process_added_in_between_is_thought_of_too(demo: Trip, monkeypatch: Any):
    insert, others = AppendEvents._insert, []

    def interrupted(self: AppendEvents, *args: Any) -> None:
        if not others:
            others.append(Event.objects.create(
                id=uuid.uuid4(), trip=demo, seq=demo.events.count() + 1,
                at_s=trip_now_s(demo), type="line_in", payload={"rod_id": "rod-3"},
            ))
        insert(self, *args)

    monkeypatch.setattr(AppendEvents, "_insert", interrupted)
    mine = event(demo, "hit", rod_id="rod-1")
    assert AppendEvents(demo, [mine]).execute().added == [mine["id"]]
    with keeping(demo) as kept:
        assert kept.now().state.rods["rod-3"].status == "in"
    assert list(demo.events.order_by("seq").values_list("seq", flat=True)) == list(
        range(1, demo.events.count() + 1)
    )


def test_rows_this_version_does_not_understand_are_shown_and_stop_nothing(
    client_in: Any, demo: Trip
):
    Event.objects.create(
        id=uuid.uuid4(), trip=demo, seq=900, at_s=trip_now_s(demo), type="mark_seen",
        payload={"depth_m": 5.0, "count": "one"},
    )
    demo.outfit["lures"][0]["mass_kg"] = -1.0
    gone = demo.outfit["lures"][0]["id"]
    demo.pk = uuid.uuid4()
    demo.save(force_insert=True)
    view = fish(client_in, demo)
    assert [item["what"] for item in view["unread"]] == ["trip"]
    first = Trip.objects.get(name="April morning", events__seq=900)
    view = fish(client_in, first)
    assert [(item["what"], "count" in item["message"]) for item in view["unread"]] == [
        ("mark_seen", True)
    ]
    assert len(view["rods"]) == 6
    assert gone
    assert post(client_in, first, event(first, "hit", rod_id="rod-1")).status_code == 200
    # Sent once more after a lost answer, it is known, though nobody can read it any more.
    row = first.events.get(seq=900)
    again = {"id": str(row.pk), "at_s": row.at_s, "type": row.type, "payload": row.payload}
    assert post(client_in, first, again).json()["known"] == [again["id"]]


def started(client: Any, **body: Any) -> Any:
    lists = client.get("/api/trips/").json()
    body.setdefault("outfit_id", 0)
    body["outfit_id"] = body["outfit_id"] or open_boat(lists)
    return client.post("/api/trips/", {
        "name": "Evening", "water_id": lists["waters"][0]["id"], "species": "trout", **body,
    }, format="json")


def test_a_trip_sent_twice_under_one_id_is_started_once(client_in: Any, stranger: Any, demo: Trip):
    key, before = str(uuid.uuid4()), Trip.objects.count()
    first, second = started(client_in, id=key), started(client_in, id=key)
    assert first.json()["id"] == second.json()["id"] == key
    assert Trip.objects.count() == before + 1
    assert started(client_in, id="nonsense").json()["field"] == "id"


def test_a_renamed_boat_keeps_its_readings_and_its_rigging(client_in: Any, demo: Trip):
    boat = demo.boat
    before = started(client_in).json()["readings"]
    assert before
    boat.name = boat.data["boat_name"] = "Grey boat"
    boat.save()
    answer = started(client_in, outfit_id=boat.pk).json()
    assert answer["readings"] == before
    assert Trip.objects.get(pk=answer["id"]).events.filter(type="rod_rigged").exists()


def test_twenty_days_with_another_boat_take_nothing_from_this_one(client_in: Any, demo: Trip):
    kayak = next(
        row["id"] for row in client_in.get("/api/trips/").json()["outfits"] if "ayak" in row["name"]
    )
    for _ in range(22):
        started(client_in, outfit_id=kayak)
    assert started(client_in).json()["readings"]


def test_summer_time_is_that_of_the_day(demo: Trip):
    water = demo.water
    water.timezone = "Europe/Berlin"
    assert water.utc_offset_min_at(datetime(2026, 1, 15, 12, tzinfo=UTC)) == 60
    assert water.utc_offset_min_at(datetime(2026, 7, 15, 12, tzinfo=UTC)) == 120
    water.timezone = ""
    assert water.utc_offset_min_at(datetime(2026, 7, 15, 12, tzinfo=UTC)) == water.utc_offset_min


def test_a_time_zone_that_is_none_is_refused(client_in: Any, demo: Trip):
    row = client_in.get("/api/waters/").json()[0]
    body = {key: row[key] for key in row if key not in ("id", "has_chart")}
    road = f"/api/waters/{row['id']}/"
    bad = client_in.put(road, {**body, "timezone": "Mars/Base"}, format="json")
    assert (bad.status_code, bad.json()["field"]) == (422, "timezone")
    good = client_in.put(road, {**body, "timezone": "Europe/Berlin"}, format="json")
    assert (good.status_code, good.json()["timezone"]) == (200, "Europe/Berlin")


def test_the_demo_clock_rests_and_goes_on_from_where_it_stood(client_in: Any, demo: Trip):
    last = demo.events.order_by("-at_s").first().at_s
    demo.clock_shift_s -= 7200.0
    demo.save()
    assert trip_now_s(demo) == last + demo.rest_after_s
    shift = client_in.get(f"/api/trips/{demo.pk}/").json()["clock_shift_s"]
    assert shift == pytest.approx(datetime.now(UTC).timestamp() - last - demo.rest_after_s, abs=5.0)
    hit = event(demo, "hit", rod_id="rod-1")
    post(client_in, demo, hit)
    demo.refresh_from_db()
    assert trip_now_s(demo) == pytest.approx(hit["at_s"], abs=5.0)


def test_a_login_lasts_from_the_last_day_it_was_used(client: Any, user: Any, demo: Trip):
    client.force_login(user)
    first = client.get("/api/session/")
    assert "sessionid" in first.cookies
    assert "sessionid" not in client.get("/api/session/").cookies
    session = client.session
    session["day"] = "2026-01-01"
    session.save()
    renewed = client.get("/api/session/")
    assert renewed.cookies["sessionid"]["max-age"] == 120 * 86400


@pytest.fixture
def server(tmp_path: Path, demo_database: Path) -> Any:
    running = RunningServer(tmp_path, template=demo_database)
    running.start()
    yield running
    running.stop()


def test_thirty_adds_at_once_are_thirty_pieces(server: RunningServer):
    users = [ApiUser(server.url) for _ in range(6)]
    body = {"kind": "lure", "properties": SPOON}
    with ThreadPoolExecutor(6) as pool:
        made = list(pool.map(
            lambda index: users[index % 6].post(PIECES, body), range(30)
        ))
    assert len({piece["key"] for piece in made}) == 30


def test_five_devices_tap_at_once_and_every_tap_is_there(server: RunningServer):
    users = [ApiUser(server.url) for _ in range(5)]
    trips = users[0].get("/api/trips/")["trips"]
    trip = next(row["id"] for row in trips if row["name"] == "April morning")
    at_s = users[0].get(f"/api/trips/{trip}/events/")["events"][-1]["at_s"]
    sent: list[str] = []
    lock = threading.Lock()

    def tap(index: int) -> None:
        hit = {"id": str(uuid.uuid4()), "at_s": at_s, "type": "hit", "payload": {"rod_id": "rod-1"}}
        users[index % 5].post(f"/api/trips/{trip}/events/", {"events": [hit]})
        with lock:
            sent.append(hit["id"])

    with ThreadPoolExecutor(5) as pool:
        list(pool.map(tap, range(60)))
    page = users[0].get(f"/api/trips/{trip}/events/")
    assert set(sent) <= {item["id"] for item in page["events"]}
    assert page["after"] == len(page["events"])


def test_a_copy_is_sound_while_taps_come_and_is_put_back(
    tmp_path: Path, demo_database: Path, monkeypatch: Any
):
    server = RunningServer(tmp_path, template=demo_database)
    server.start()
    try:
        user = ApiUser(server.url)
        trip = user.get("/api/trips/")["trips"][0]["id"]
        road = f"/api/trips/{trip}/events/"
        server.manage("backup")
        kept = user.get(road)["after"]
        last = user.get(road)["events"][-1]["at_s"]
        user.post(road, {"events": [{
            "id": str(uuid.uuid4()), "at_s": last, "type": "hit", "payload": {"rod_id": "rod-1"},
        }]})
        assert user.get(road)["after"] == kept + 1
        server.stop()
        copies = sorted((tmp_path / "backups").glob("*.sqlite3"))
        assert len(copies) == 1
        assert oct(copies[0].stat().st_mode)[-3:] == "600"
        server.manage("restore")
        server.start()
        assert ApiUser(server.url).get(road)["after"] == kept
        # What stood there before was copied in its turn.
        assert len(list((tmp_path / "backups").glob("*.sqlite3"))) == 2
    finally:
        server.stop()


def test_what_is_no_copy_is_not_put_back(settings: Any, tmp_path: Path):
    settings.VAR = tmp_path
    from django.core.management.base import CommandError

    with pytest.raises(CommandError, match="There is no copy"):
        call_command("restore")
    (tmp_path / "broken.sqlite3").write_bytes(b"SQLite format 3\x00" + b"\xff" * 4000)
    with pytest.raises(CommandError, match="no database of Cold Wake"):
        call_command("restore", str(tmp_path / "broken.sqlite3"))


@pytest.mark.parametrize("old_file", OLD, ids=lambda path: path.name.removesuffix(".sqlite3.gz"))
def test_a_database_of_an_earlier_version_is_copied_and_brought_up_to_date(
    tmp_path: Path, old_file: Path
):
    server = RunningServer(tmp_path, fresh=False)
    with gzip.open(old_file) as packed, server.database.open("wb") as file:
        shutil.copyfileobj(packed, file)
    with closing(sqlite3.connect(server.database)) as old:
        events = old.execute("SELECT count(*) FROM trips_event").fetchone()[0]
    server.manage("backup", "--if-upgrading")
    assert len(list((tmp_path / "backups").glob("*.sqlite3"))) == 1
    server.manage("migrate", "--verbosity", "0")
    # Nobody else reads the record, nor its copies, though it was left open before.
    for file in (server.database, *(tmp_path / "backups").glob("*.sqlite3")):
        assert file.stat().st_mode & 0o077 == 0
    server.manage("backup", "--if-upgrading")
    assert len(list((tmp_path / "backups").glob("*.sqlite3"))) == 1
    with closing(sqlite3.connect(server.database)) as new:
        assert new.execute("SELECT count(*) FROM trips_event").fetchone()[0] == events
        assert new.execute(
            "SELECT count(*) FROM trips_trip WHERE boat_id IS NULL OR water_id IS NULL"
        ).fetchone() == (0,)
        boats = new.execute(
            "SELECT json_extract(t.outfit, '$.boat_name'), o.name FROM trips_trip t "
            "JOIN locker_outfit o ON o.id = t.boat_id"
        ).fetchall()
        assert all(of_trip == of_boat for of_trip, of_boat in boats)
        numbers = new.execute(
            "SELECT trip_id, count(*), min(seq), max(seq) FROM trips_event GROUP BY trip_id"
        ).fetchall()
        assert all(low == 1 and high == count for _, count, low, high in numbers)
    server.start()
    try:
        user = ApiUser(server.url)
        for row in user.get("/api/trips/")["trips"]:
            assert len(user.get(f"/api/trips/{row['id']}/fish/")["rods"]) > 0
    finally:
        server.stop()
