"""A trip as lines of JSON: under its schema, out and back the same; and the calendar of trips."""

from __future__ import annotations

import copy
import json
from datetime import UTC, date, datetime, timedelta
from typing import Any

import jsonschema
import pytest
from icalendar import Calendar

from plans.models import Plan
from trips.models import Event, Trip
from trips.queries import forget_trips

pytestmark = pytest.mark.django_db
BRING = "/api/trips/bring/"


def out(client: Any, trip: Any) -> bytes:
    answer = client.get(f"/api/trips/{trip.pk}/export.jsonl")
    assert answer.status_code == 200
    return b"".join(answer.streaming_content)


def bring(client: Any, data: bytes) -> Any:
    return client.post(BRING, data, content_type="application/x-ndjson")


def counted(client: Any, trip: Any) -> list[tuple[Any, ...]]:
    """What each kind of rig did: hours go on while the trip is open, counts do not."""
    kinds = client.get(f"/api/trips/{trip.pk}/ledger/").json()["rows"]
    names = ("kind", "resets", "tangles", "hits", "hooked", "landed", "lost")
    return [tuple(one[name] for name in names) for one in kinds]


@pytest.fixture
def checker(client_in: Any) -> Any:
    schema = client_in.get("/api/trips/line.schema.json").json()
    jsonschema.Draft202012Validator.check_schema(schema)
    return jsonschema.Draft202012Validator(schema)


def test_every_line_of_every_demo_trip_is_under_the_schema(
    client_in: Any, user: Any, demo: Any, checker: Any
):
    kinds = set()
    for trip in user.trips.all():
        for row in out(client_in, trip).splitlines():
            line = json.loads(row)
            checker.validate(line)
            kinds.add(line.get("event", {}).get("type", "trip"))
    assert {"trip", "hit", "line_set", "rod_rigged", "speed_changed"} <= kinds


def test_the_schema_refuses_what_is_no_line(client_in: Any, demo: Any, checker: Any):
    first, *rest = [json.loads(row) for row in out(client_in, demo).splitlines()]
    event = next(line for line in rest if line["event"]["type"] == "speed_changed")

    def changed(line: Any, change: Any) -> Any:
        other = copy.deepcopy(line)
        change(other)
        return other

    for bad in (
        changed(first, lambda line: line.update(format=2)),
        changed(first, lambda line: line["trip"].pop("species")),
        changed(first, lambda line: line["trip"].update(species="carp")),
        changed(event, lambda line: line["event"].update(type="flown")),
        changed(event, lambda line: line["event"]["payload"].update(speed_mps="fast")),
        changed(event, lambda line: line["event"]["payload"].update(more=1)),
        {**first, **event}, {}, [],
    ):
        assert not checker.is_valid(bad)


def test_a_trip_that_is_gone_comes_back_the_same(client_in: Any, demo: Any):
    data, before = out(client_in, demo), counted(client_in, demo)
    demo.delete()
    forget_trips()
    answer = bring(client_in, data)
    assert answer.status_code == 201, answer.json()
    again = Trip.objects.get(pk=answer.json()["id"])
    assert out(client_in, again) == data
    assert counted(client_in, again) == before
    assert again.water is not None
    assert again.boat is not None
    twice = bring(client_in, data)
    assert twice.status_code == 409
    assert "already" in json.dumps(twice.json())


def test_a_trip_of_somebody_else_comes_in_under_ids_of_its_own(
    client_in: Any, stranger: Any, demo: Any
):
    data = out(client_in, demo)
    before = Event.objects.count()
    answer = bring(stranger, data)
    assert answer.status_code == 201, answer.json()
    assert answer.json()["id"] != str(demo.pk)
    mine = Trip.objects.get(pk=answer.json()["id"])
    assert Event.objects.count() == before + demo.events.count()
    # What points to an event points to its own: the same is undone, the same is counted.
    assert counted(stranger, mine) == counted(client_in, demo)
    assert bring(stranger, data).status_code == 409


@pytest.mark.parametrize(("spoil", "field"), [
    (lambda rows: [], "trip"),
    (lambda rows: [b"{}"], "line 1"),
    (lambda rows: [b"[" * 5000], "line 1"),
    (lambda rows: rows[1:], "line 1"),
    (lambda rows: [rows[0].replace(b'"format": 1', b'"format": 9'), *rows[1:]], "line 1: format"),
    (lambda rows: [rows[0].replace(b'"species": "', b'"species": "x'), *rows[1:]],
     "line 1: trip.species"),
    (lambda rows: [*rows[:3], b'{"event": {"id": "x"}}', *rows[3:]], "line 4: id"),
    (lambda rows: [*rows[:3], rows[3][: len(rows[3]) // 2]], "line 4"),
    (lambda rows: [*rows[:3], rows[3].replace(b'"at_s": 1', b'"at_s": 9')], "line 4: at_s"),
])
def test_what_is_no_trip_is_named_by_its_line_and_nothing_is_kept(
    client_in: Any, demo: Any, spoil: Any, field: str
):
    rows = out(client_in, demo).splitlines()
    demo.delete()
    forget_trips()
    before = Trip.objects.count(), Event.objects.count()
    answer = bring(client_in, b"\n".join(spoil(rows)))
    assert (answer.status_code, answer.json()["field"]) == (422, field), answer.json()
    assert (Trip.objects.count(), Event.objects.count()) == before


def test_trips_and_planned_days_are_a_calendar(client_in: Any, user: Any, demo: Any):
    past = user.trips.filter(is_ended=True).first()
    Plan.objects.create(
        owner=user, water=demo.water, species="kokanee", day=date(2026, 5, 2), asked={}, document={}
    )
    answer = client_in.get("/api/trips/calendar.ics")
    assert answer["Content-Type"].startswith("text/calendar")
    events = {str(e["uid"]): e for e in Calendar.from_ical(answer.content).walk("VEVENT")}
    assert len(events) == user.trips.count() + user.plans.count()
    one = events[f"{past.pk}@coldwake"]
    last = past.events.order_by("-at_s").first()
    assert one.start == past.started_at.astimezone(UTC).replace(microsecond=0)
    assert abs(one.end - datetime.fromtimestamp(last.at_s, UTC)) < timedelta(seconds=1)
    assert str(one["location"]) == past.water_name
    planned = next(e for e in events.values() if str(e["summary"]) == "Planned: kokanee")
    assert (planned.start, planned.end) == (date(2026, 5, 2), date(2026, 5, 3))
