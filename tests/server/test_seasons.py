"""The season over the API, and other people's spreadsheets."""

from __future__ import annotations

import csv
import io
from datetime import date, timedelta
from typing import Any

import pytest

from coldwake_core.constants import FOOT_M, INCH_M, MPH_MPS
from coldwake_core.errors import InvalidInputError
from seasons.models import Digest, NotedCatch
from seasons.sheet import read_sheet, understood

pytestmark = pytest.mark.django_db
SEASON, SHEET, BEGIN = "/api/seasons/", "/api/seasons/sheet/", "/api/seasons/begin/"


def test_each_bite_names_the_events_that_told_it_and_none_that_was_undone(
    client_in: Any, demo: Any
):
    road = f"/api/seasons/bites/{demo.pk}/"
    kinds = ("hit", "hooked", "landed", "lost")
    told = {str(event.pk): event for event in demo.events.filter(type__in=kinds)}
    undone = {event.payload["event_id"] for event in demo.events.filter(type="undone")}
    rows = client_in.get(road).json()
    named = [one["event_id"] for row in rows for one in row["told"]]
    assert sorted(named) == sorted(set(told) - undone)
    for row in rows:
        for one in row["told"]:
            assert told[one["event_id"]].payload["rod_id"] == row["rod_id"]
            assert one["at_s"] == told[one["event_id"]].at_s >= row["at_s"]
    first = rows[0]["told"][-1]
    back = {
        "id": "00000000-0000-4000-8000-0000000000aa", "type": "undone",
        "at_s": first["at_s"] + 0.001, "payload": {"event_id": first["event_id"]},
    }
    client_in.post(f"/api/trips/{demo.pk}/events/", {"events": [back]}, format="json")
    after = [one["event_id"] for row in client_in.get(road).json() for one in row["told"]]
    assert first["event_id"] not in after


def test_handling_of_the_season_is_that_of_its_trips_together(client_in: Any, user: Any):
    season = client_in.get(SEASON, {"species": "trout"}).json()["ledger"]
    trips = user.trips.filter(species="trout", is_practice=False)
    days = [client_in.get(f"/api/trips/{trip.pk}/ledger/").json()["rows"] for trip in trips]
    for name in ("resets", "tangles", "hits", "landed", "lost"):
        together = sum(row[name] for rows in days for row in rows)
        assert sum(row[name] for row in season) == together
    assert sum(row["hits"] for row in season) > 0
    assert {row["kind"] for row in season} == {row["kind"] for rows in days for row in rows}


def test_days_alone_are_the_same_days_whether_they_are_kept_or_not(client_in: Any):
    whole = client_in.get(SEASON, {"species": "trout"}).json()
    for _ in range(2):
        days = client_in.get(SEASON, {"species": "trout", "days_only": "true"}).json()
        closed = [one for one in days["days"] if one["minutes"] > 0.0]
        assert closed
        for one, other in zip(days["days"], whole["days"], strict=True):
            # Lines of the open trip fish on between two askings.
            assert {**one, "minutes": 0.0} == {**other, "minutes": 0.0}
            assert one["minutes"] == pytest.approx(other["minutes"], abs=2.0)
        assert (days["trends"], days["kept"]) == ([], None)
        # A digest of an earlier version has not kept them.
        Digest.objects.update(numbers=None)


def test_a_season_has_the_days_of_its_fish_and_every_minute_is_in_a_bar(
    client_in: Any, user: Any, demo: Any
):
    told = client_in.get(SEASON, {"species": "trout"}).json()
    trips = user.trips.filter(species="trout")
    assert {row["trip_id"] for row in told["days"]} == {str(trip.pk) for trip in trips}
    assert told["waiting"] == 0
    # Hits as the events tell them, those that were undone or cast aside left out.
    hits = sum(
        trip.events.filter(type="hit").count() for trip in trips
    )
    assert sum(row["hits"] for row in told["days"]) == hits
    minutes = sum(row["minutes"] for row in told["days"])
    for one in told["trends"]:
        assert sum(b["minutes"] for b in one["bars"]) + one["unknown_min"] == pytest.approx(minutes)
        assert sum(b["hits"] for b in one["bars"]) <= hits


def test_what_one_answer_has_no_time_for_waits_for_the_next(
    client_in: Any, user: Any, monkeypatch: Any
):
    monkeypatch.setattr("seasons.digests.PATIENCE_S", 0.0)
    ended = {str(trip.pk) for trip in user.trips.filter(is_ended=True, species="trout")}
    whole = user.trips.filter(species="trout").count()
    assert ended
    assert whole > 1
    waiting = whole
    for _ in range(whole):
        told = client_in.get(SEASON, {"species": "trout"}).json()
        assert told["waiting"] < waiting or not waiting
        waiting = told["waiting"]
        shown = {row["trip_id"] for row in told["days"] if row["minutes"] > 0.0}
        assert len(shown) <= whole - waiting
    assert ended <= {row["trip_id"] for row in told["days"]}


def test_a_digest_is_kept_until_something_comes_late(client_in: Any, user: Any):
    past = user.trips.filter(is_ended=True, species="trout").first()
    client_in.get(SEASON, {"species": "trout"})
    kept = Digest.objects.get(trip=past)
    Digest.objects.filter(trip=past).update(document={**kept.document, "cast_hits": 70})
    first = next(
        row for row in client_in.get(SEASON, {"species": "trout"}).json()["days"]
        if row["trip_id"] == str(past.pk)
    )
    assert first["hits"] >= 70
    event = {
        "id": "7f1c3a4e-0000-4000-8000-00000000abcd", "at_s": past.events.last().at_s - 60.0,
        "type": "temperature_read", "payload": {"temperature_degc": 11.5, "depth_m": 0.0},
    }
    answer = client_in.post(f"/api/trips/{past.pk}/events/", {"events": [event]}, format="json")
    assert answer.status_code == 200, answer.json()
    again = next(
        row for row in client_in.get(SEASON, {"species": "trout"}).json()["days"]
        if row["trip_id"] == str(past.pk)
    )
    assert (again["hits"] < 70, again["warm_last_degc"]) == (True, 11.5)


def test_nobody_else_s_season_is_seen(stranger: Any, demo: Any):
    told = stranger.get(SEASON).json()
    assert (told["days"], told["of_waters"], told["noted"]) == ([], [], 0)
    assert all(one["bars"] == [] for one in told["trends"])


def test_a_chart_s_numbers_are_a_file(client_in: Any, demo: Any):
    answer = client_in.get("/api/seasons/trend.csv", {"species": "trout", "axis": "kind"})
    rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
    told = client_in.get(SEASON, {"species": "trout"}).json()
    bars = next(one for one in told["trends"] if one["axis"] == "kind")["bars"]
    assert [(row["kind"], int(row["hits"])) for row in rows] == [
        (bar["name"], bar["hits"]) for bar in bars
    ]
    for asked, field in (({"axis": "luck"}, "axis"), ({"axis": "kind", "units": "x"}, "units"),
                         ({"axis": "kind", "species": "carp"}, "species")):
        bad = client_in.get("/api/seasons/trend.csv", asked)
        assert (bad.status_code, bad.json()["field"]) == (422, field)


def test_what_to_begin_with_comes_from_days_like_it(client_in: Any, user: Any, demo: Any):
    past = user.trips.filter(is_ended=True, species="trout").first()
    asked = {
        "species": "trout", "water_name": past.water_name,
        "day": (past.started_at + timedelta(days=365)).date().isoformat(),
    }
    told = client_in.get(BEGIN, asked).json()
    assert past.name in [day["name"] for day in told["days"]]
    assert told["begin"]
    for one in told["begin"]:
        assert 0.0 < one["of_rule_book"] <= 1.0
        assert one["of_water"] + one["of_rule_book"] <= 1.0 + 1e-9
    for name, value in (("day", "soon"), ("surface_degc", "warm"), ("surface_degc", "99")):
        bad = client_in.get(BEGIN, {"species": "trout", name: value})
        assert (bad.status_code, bad.json()["field"]) == (422, name)


NOTES = """Date,Lake,Fish,Water Temp (F),Lure Depth (ft),Speed,Lure,Length,Kept
4/15/2024,Made-up Tarn,Rainbow,49,12,1.4,copper spoon,14,y
4/15/2024,Made-up Tarn,Kokanee,49,30,1.2,pink hoochie,12,n
13/4/2024,Made-up Tarn,,49,12,1.4,x,14,y
4/16/2024,Made-up Tarn,Carp,50,5,1.4,x,14,y
4/17/2024,Made-up Tarn,,warm,5,1.4,x,14,y
4/18/2024,Made-up Tarn,,,,,,,
"""


def sheet(text: str = NOTES, **changes: Any) -> dict[str, Any]:
    return {"name": "years.csv", "text": text, "species": "trout", **changes}


def test_a_spreadsheet_is_shown_as_it_is_understood_before_anything_is_kept(client_in: Any):
    told = client_in.post(SHEET, sheet(), format="json").json()
    assert told["units"] == {
        "temperature": "°F", "depth": "ft", "speed": "mph", "length": "in"
    }
    assert told["dates"] == "dmy"  # one row has a thirteenth first: the user is asked for the rest
    told = client_in.post(SHEET, sheet(dates="mdy"), format="json").json()
    assert (told["good"], told["bad_count"], told["taken"]) == (3, 3, 0)
    first = told["rows"][0]
    assert (first["day"], first["species"], first["kept"]) == ("2024-04-15", "trout", 1)
    assert first["warm_degc"] == pytest.approx((49.0 - 32.0) / 1.8)
    assert first["depth_m"] == pytest.approx(12.0 * FOOT_M)
    assert first["speed_mps"] == pytest.approx(1.4 * MPH_MPS)
    assert first["length_m"] == pytest.approx(14.0 * INCH_M)
    assert told["rows"][1]["species"] == "kokanee"
    assert [line.split(":")[0] for line in told["bad"]] == ["row 4", "row 5", "row 6"]
    assert "speed taken as mph" in " ".join(told["unsure"])
    assert not NotedCatch.objects.exists()


def test_rows_are_kept_once_counted_by_day_and_stand_in_no_rate(client_in: Any, stranger: Any):
    ended = {"species": "trout", "water_name": "Sallow Tarn Reservoir"}
    trends = client_in.get(SEASON, ended).json()["trends"]
    text = NOTES.replace("Made-up Tarn", "Sallow Tarn Reservoir")
    taken = client_in.post(SHEET, sheet(text, dates="mdy", take=True), format="json").json()
    assert (taken["taken"], taken["known"]) == (3, 0)
    again = client_in.post(SHEET, sheet(text, dates="mdy", take=True), format="json").json()
    assert (again["taken"], again["known"]) == (0, 3)
    told = client_in.get(SEASON, ended).json()
    mine = [row for row in told["days"] if row["trip_id"] is None]
    assert [(row["day"], row["landed"], row["kept"]) for row in mine] == [
        ("2024-04-15", 1, 1), ("2024-04-18", 1, 0)
    ]
    assert told["noted"] == 2
    hits = [[bar["hits"] for bar in one["bars"]] for one in told["trends"]]
    assert hits == [[bar["hits"] for bar in one["bars"]] for one in trends]
    # Two fish that read the same are two fish.
    twins = "date,length\n2024-05-01,12\n2024-05-01,12\n"
    assert client_in.post(SHEET, sheet(twins, take=True), format="json").json()["taken"] == 2
    assert stranger.delete(f"{SHEET}?name=years.csv").status_code == 204
    assert NotedCatch.objects.count() == 5
    client_in.delete(f"{SHEET}?name=years.csv")
    assert NotedCatch.objects.count() == 0


@pytest.mark.parametrize(("text", "units", "dates"), [
    ("day;temp;depth m\n2024-05-01;9,5;4\n", {"temperature": "°C", "depth": "m"}, "ymd"),
    ("Date\tSurface_Temp_C\n1.5.24\t9.5\n25.5.24\t11\n", {"temperature": "°C"}, "dmy"),
    ("when,size,speed (kts)\n5/1/24,45 cm,1.1\n", {"length": "cm", "speed": "kn"}, "mdy"),
    ("date,length\n2024-05-01,380\n", {"length": "mm"}, "ymd"),
    ("date,length,water temp\n2024-05-01,38,48\n", {"length": "cm", "temperature": "°F"}, "ymd"),
])
def test_units_and_dates_are_told_from_names_cells_and_sizes(
    text: str, units: dict[str, str], dates: str
):
    found = read_sheet(text, species="trout")
    assert (found.units, found.dates) == (units, dates)


def test_what_is_said_of_columns_and_units_goes_before_what_is_guessed():
    text = "date,a,b\n2024-05-01,12,40\n"
    found = read_sheet(
        text, species="trout", columns={"depth": 1, "length": 2}, units={"depth": "m"}
    )
    (row,), bad = understood(found)
    assert (row.depth_m, row.length_m, bad) == (12.0, pytest.approx(0.4), [])
    left_out = read_sheet("date,depth\n2024-05-01,x\n", species="trout", columns={"depth": -1})
    assert understood(left_out)[1] == []


@pytest.mark.parametrize(("cell", "hour"), [
    ("6:40", 6.0 + 40.0 / 60.0), ("6:40 pm", 18.0 + 40.0 / 60.0), ("12:05 AM", 5.0 / 60.0),
    ("12 p.m.", 12.0), ("", None),
])
def test_clock_times_are_read_as_people_write_them(cell: str, hour: float | None):
    found = read_sheet(f"date,time\n2024-05-01,{cell}\n", species="trout")
    (row,), bad = understood(found)
    assert bad == []
    assert row.hour == (None if hour is None else pytest.approx(hour))


@pytest.mark.parametrize("line", [
    "2024-02-30,1", "tomorrow,1", "1949-12-31,1", f"{date.today() + timedelta(days=2)},1",
    "2024-05-01,many", "2024-05-01,-2", "2024-05-01,1001",
])
def test_a_row_that_cannot_be_is_named_and_the_others_are_read(line: str):
    found = read_sheet(f"date,count\n2024-05-01,2\n{line}\n", species="trout")
    good, bad = understood(found)
    assert [(row.day, row.count) for row in good] == [(date(2024, 5, 1), 2)]
    assert bad[0].startswith("row 3: ")


@pytest.mark.parametrize(("changes", "field"), [
    ({"text": ""}, "text"), ({"text": "date\n"}, "text"),
    ({"text": "a,b\n1,2\n"}, "columns.date"), ({"columns": [1]}, "columns"),
    ({"columns": {"luck": 1}}, "columns"), ({"columns": {"date": 99}}, "columns.date"),
    ({"units": {"depth": "fathom"}}, "units.depth"), ({"dates": "ydm"}, "dates"),
    ({"species": "carp"}, "species"), ({"name": ""}, "name"),
    ({"text": "date\nnone\n", "take": True}, "text"),
])
def test_a_spreadsheet_that_is_none_is_refused_by_name(
    client_in: Any, changes: dict[str, Any], field: str
):
    answer = client_in.post(SHEET, sheet(**changes), format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert not NotedCatch.objects.exists()


def test_whatever_stands_in_a_sheet_is_read_or_refused():
    for text in ("date\n" + "9" * 5000, "date,depth\n2024-05-01,1e999\n", "date,,\n,,\n1/2/3,,\n"):
        try:
            understood(read_sheet(text, species="trout"))
        except InvalidInputError as error:
            assert error.field


def test_a_trip_is_seen_as_it_stood_at_a_minute(client_in: Any, user: Any, demo: Any):
    past = user.trips.filter(is_ended=True, species="trout").first()
    hits = list(past.events.filter(type="hit").order_by("at_s").values_list("at_s", flat=True))
    road = f"/api/trips/{past.pk}/fish/"

    def counted(at_s: float) -> int:
        view = client_in.get(road, {"at_s": at_s}).json()
        assert view["now_s"] == at_s
        return sum(rod["tally"]["hits"] for rod in view["rods"])

    assert [counted(hits[0] - 1.0), counted(hits[0]), counted(hits[-1])] == [0, 1, len(hits)]
    for at_s in ("soon", "nan", past.started_at.timestamp() - 1e6, 4e9):
        bad = client_in.get(road, {"at_s": at_s})
        assert (bad.status_code, bad.json()["field"]) == (422, "at_s")
