"""Planning a day: computed, kept, taken along; and a forecast service that fails."""

from __future__ import annotations

import json
import subprocess
import sys
import threading
import time
import uuid
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import httpx
import icalendar
import pytest
from django.contrib.auth import get_user_model
from django.test import Client

from coldwake_core.constants import degc_from_degf
from locker.models import Outfit
from paths import ROOT
from plans.models import KeptForecast, Plan
from trips.actions.append_events import AppendEvents
from trips.models import Trip
from waters.models import Water

pytestmark = pytest.mark.django_db
DAY = "2026-04-14"
TYPED = {
    "air_low_degc": 2.0, "air_high_degc": 14.0, "humidity": 0.55, "cloud": 0.1, "wind_mps": 1.0,
    "wind_from_deg": 220.0,
}


@pytest.fixture
def client(demo):
    client = Client()
    client.force_login(get_user_model().objects.get(username="demo"))
    return client


def water_id(name="Sallow"):
    return Water.objects.get(name__startswith=name).pk


def asked(**changes):
    return {
        "water_id": water_id(), "species": "trout", "day": DAY,
        "surface_degc": degc_from_degf(48.6), "typed": TYPED, "rough": True, **changes,
    }


def send(client, method, path, body=None):
    answer = getattr(client, method)(
        path, data=None if body is None else json.dumps(body), content_type="application/json"
    )
    return answer.status_code, answer.json() if answer.content else None


def test_a_calm_fair_day_is_two_phases_and_a_windy_one_is_one(client):
    status, calm = send(client, "post", "/api/plans/day/", asked())
    assert status == 200
    ids = [phase["method"]["id"] for phase in calm["view"]["phases"]]
    assert ids[:2] == ["cover_water", "trout_warming"]
    assert [round((h["at_s"] - calm["hours"][0]["at_s"]) / 3600) for h in calm["hours"]] == list(
        range(21)
    )
    windy = asked(typed={**TYPED, "wind_mps": 8.0, "cloud": 0.6})
    _, blown = send(client, "post", "/api/plans/day/", windy)
    assert [p["method"]["id"] for p in blown["view"]["phases"]] == ["cover_water"]
    assert {c["kind"] for c in blown["view"]["cautions"]} >= {"wind", "cold_water"}


def test_what_is_drawn_on_the_hours_is_what_is_computed(client):
    _, calm = send(client, "post", "/api/plans/day/", asked())
    hours = [
        {**hour, "wind_mps": 6.0} if i >= 10 else hour for i, hour in enumerate(calm["hours"])
    ]
    _, turned = send(client, "post", "/api/plans/day/", asked(typed=None, hours=hours))

    def surface(day, hour):
        return day["view"]["hours"][hour - 3]["planned_degc"]

    assert surface(turned, 12) == pytest.approx(surface(calm, 12), abs=0.15)
    assert surface(turned, 18) < surface(calm, 18) - 1.0


def test_a_profile_says_more_than_a_surface(client):
    layered = [[0.0, 20.0], [5.0, 19.5], [8.0, 14.0], [12.0, 9.0], [40.0, 6.0]]
    status, day = send(
        client, "post", "/api/plans/day/",
        asked(day="2026-07-20", profile=layered, surface_degc=None,
              typed={**TYPED, "air_low_degc": 12.0, "air_high_degc": 27.0}),
    )
    assert status == 200
    noon = day["view"]["hours"][9]
    assert 5.0 < noon["thermocline_m"] < 12.0
    assert day["view"]["phases"][0]["method"]["id"] in ("trout_deep", "trout_hot")
    assert "band" in day["view"]["phases"][0]["depth_words"]
    assert day["view"]["start_words"] == "from the profile read"


@pytest.mark.parametrize(("changes", "field"), [
    ({"water_id": 999_999}, "water_id"),
    ({"water_id": "1"}, "water_id"),
    ({"species": "pike"}, "species"),
    ({"day": "14 April"}, "day"),
    ({"day": "1776-07-04"}, "day"),
    ({"surface_age_h": -1.0}, "surface_age_h"),
    ({"surface_degc": "nan"}, "surface_degc"),
    ({"profile": [[5.0, 9.0], [1.0, 8.0]]}, "profile[1].depth_m"),
    ({"profile": [[5.0, 9.0, 1.0]]}, "profile[0]"),
    ({"profile": [5.0]}, "profile[0]"),
    ({"secchi_m": -1}, "secchi_m"),
    ({"typed": {**TYPED, "cloud": 2.0}}, "cloud"),
    ({"typed": None}, "typed"),
    ({"hours": []}, "hours"),
    ({"hours": [{"at_s": 0}]}, "hours[0].air_degc"),
    ({"schools": {"cold_morning": "sleep"}}, "schools.cold_morning"),
    ({"schools": []}, "schools"),
    ({"oxygen": [[0.0, 99.0]]}, "oxygen[0].oxygen_mgpl"),
    ({"oxygen": [[0.0]]}, "oxygen[0]"),
    ({"home": {"home_mps": 0.0}}, "home.home_mps"),
    ({"home": {"way_m": "far"}}, "home.way_m"),
    ({"river": {"current_mps": 9.0}}, "river.current_mps"),
    ({"nonsense": 1}, "nonsense"),
])
def test_what_cannot_be_is_named(client, changes, field):
    if changes.get("schools") == []:
        changes = {"schools": ["x"]}
    status, error = send(client, "post", "/api/plans/day/", asked(**changes))
    assert status == 422, error
    assert error["field"] == field


def test_a_day_of_polar_night_has_no_sun_and_still_an_answer(client):
    Water.objects.filter(pk=water_id()).update(latitude_deg=78.0, longitude_deg=15.0)
    status, day = send(
        client, "post", "/api/plans/day/",
        asked(day="2026-12-21", surface_degc=4.0,
              typed={**TYPED, "air_low_degc": -9.0, "air_high_degc": -4.0}),
    )
    assert status == 200
    assert all(hour["elevation_deg"] < 0.0 for hour in day["view"]["hours"])
    assert all(hour["across_deg"] == [] for hour in day["view"]["hours"])
    assert day["sun"]["sunrise_s"] == day["sun"]["sunset_s"]
    (dark,) = [caution for caution in day["view"]["cautions"] if caution["kind"] == "dark"]
    assert "does not rise" in dark["text"]


def test_a_day_without_a_night_has_sun_all_round(client):
    Water.objects.filter(pk=water_id()).update(latitude_deg=78.0, longitude_deg=15.0)
    day = send(client, "post", "/api/plans/day/", asked(day="2026-06-21"))[1]
    assert day["sun"]["sunset_s"] - day["sun"]["sunrise_s"] == pytest.approx(24 * 3600.0)
    assert not any("does not rise" in caution["text"] for caution in day["view"]["cautions"])


def test_surface_that_nobody_read_is_guessed_from_the_month_and_an_old_one_is_doubted(client):
    def dawn(**changes):
        day = send(client, "post", "/api/plans/day/", asked(rough=False, **changes))[1]["view"]
        band = day["hours"][3]["surface"]
        return day["start_words"], band["high"] - band["low"]

    guessed, wide = dawn(surface_degc=None)
    assert guessed.startswith("guessed from the month")
    _, fresh = dawn()
    _, old = dawn(surface_age_h=24.0)
    assert fresh < 0.7 * old < 0.7 * wide


def test_a_plan_is_kept_changed_listed_and_dropped(client):
    key = str(uuid.uuid4())
    status, kept = send(client, "put", f"/api/plans/{key}/", asked(rough=False))
    assert status == 200
    assert len(Plan.objects.get(pk=key).document["forecast"]["members_degc"]) == 50
    _, again = send(client, "get", f"/api/plans/{key}/")
    assert again["view"]["phases"] == kept["view"]["phases"]
    assert again["asked"]["typed"] == TYPED
    send(client, "put", f"/api/plans/{key}/", asked(species="kokanee"))
    _, rows = send(client, "get", "/api/plans/")
    assert (key, "kokanee") in [(row["id"], row["species"]) for row in rows]
    assert send(client, "delete", f"/api/plans/{key}/")[0] == 204
    assert send(client, "get", f"/api/plans/{key}/")[0] == 404


def test_another_s_plan_is_as_if_it_were_not_there(client):
    key = str(uuid.uuid4())
    send(client, "put", f"/api/plans/{key}/", asked())
    other = Client()
    other.force_login(get_user_model().objects.create_user("other"))
    assert send(other, "get", "/api/plans/") == (200, [])
    assert send(other, "get", f"/api/plans/{key}/")[0] == 404
    assert send(other, "delete", f"/api/plans/{key}/")[0] == 404
    assert send(other, "post", "/api/plans/day/", asked())[1]["field"] == "water_id"
    mine = Water.objects.create(
        owner=get_user_model().objects.get(username="other"), name="Mine", deepest_m=10.0,
        latitude_deg=44.0, longitude_deg=-105.0, utc_offset_min=-360,
    )
    assert send(other, "put", f"/api/plans/{key}/", asked(water_id=mine.pk))[0] == 404
    assert Plan.objects.get(pk=key).owner.username == "demo"


def test_a_trip_takes_its_plan_along(client):
    key = str(uuid.uuid4())
    send(client, "put", f"/api/plans/{key}/", asked())
    _, lists = send(client, "get", "/api/trips/")
    boat = lists["outfits"][0]["id"]
    body = {
        "name": "Planned", "water_id": water_id(), "outfit_id": boat, "species": "trout",
        "plan_id": key,
    }
    status, trip = send(client, "post", "/api/trips/", body)
    assert status == 201
    assert trip["plan"]["start_words"].startswith("taken as mixed")
    send(client, "delete", f"/api/plans/{key}/")
    assert Trip.objects.get(pk=trip["id"]).plan == trip["plan"]
    status, error = send(client, "post", "/api/trips/", body)
    assert (status, error["field"]) == (422, "plan_id")
    send(client, "put", f"/api/plans/{key}/", asked(species="kokanee"))
    status, error = send(client, "post", "/api/trips/", body)
    assert (status, error["field"]) == (422, "plan_id")


FLOAT = {
    "who": "Two of us", "boat": "16 ft open boat", "water": "Sallow Tarn Reservoir",
    "launch": "west launch", "out_s": 1_776_171_600.0, "back_s": 1_776_200_400.0,
    "call": "Ash, 555 0100, then the county",
}


def test_a_trip_under_way_takes_a_planned_day_once_and_only_its_own(client, stranger):
    _, lists = send(client, "get", "/api/trips/")
    boat = lists["outfits"][0]["id"]
    _, trip = send(client, "post", "/api/trips/", {
        "name": "Unplanned", "water_id": water_id(), "outfit_id": boat, "species": "trout",
    })
    where = f"/api/trips/{trip['id']}/day/"
    assert send(client, "get", f"/api/trips/{trip['id']}/fish/")[1]["day"] is None
    here = datetime.fromtimestamp(trip["started_at_s"], UTC) + timedelta(
        minutes=trip["utc_offset_min"]
    )
    key, event_id = str(uuid.uuid4()), str(uuid.uuid4())
    send(client, "put", f"/api/plans/{key}/", asked(day=here.date().isoformat()))
    for _ in range(2):
        assert send(client, "post", where, {"id": event_id, "plan_id": key})[0] == 204
    _, page = send(client, "get", f"/api/trips/{trip['id']}/events/")
    assert [event["type"] for event in page["events"]].count("day_planned") == 1
    assert send(client, "get", f"/api/trips/{trip['id']}/fish/")[1]["day"]["planned"]
    for changes in ({"day": "2026-04-14"}, {"species": "kokanee"}):
        other = str(uuid.uuid4())
        send(client, "put", f"/api/plans/{other}/", asked(**{"day": str(here.date()), **changes}))
        status, error = send(client, "post", where, {"id": str(uuid.uuid4()), "plan_id": other})
        assert (status, error["field"]) == (422, "plan_id")
    status, error = send(client, "post", where, {"id": "no", "plan_id": key})
    assert (status, error["field"]) == (422, "id")
    sent = {"id": str(uuid.uuid4()), "plan_id": key}
    assert stranger.post(where, sent, format="json").status_code == 404


def test_a_float_plan_is_written_as_text_and_as_calendar(client):
    status, written = send(
        client, "post", "/api/plans/float/", {"water_id": water_id(), "plan": FLOAT}
    )
    assert status == 200
    # Six o'clock at the water, seven hours behind UTC, and eight hours on.
    assert "Out: Tue 14 Apr 2026, 06:00" in written["text"]
    assert "Back by: Tue 14 Apr 2026, 14:00" in written["text"]
    assert "555 0100" in written["text"]
    (event,) = icalendar.Calendar.from_ical(written["ics"]).walk("VEVENT")
    assert event["dtend"].dt.timestamp() == FLOAT["back_s"]
    assert event["summary"] == "On the water: Sallow Tarn Reservoir"
    (alarm,) = event.walk("VALARM")
    assert alarm["trigger"].params["RELATED"] == "END"


@pytest.mark.parametrize(("changes", "field"), [
    ({"who": ""}, "plan.who"), ({"call": " "}, "plan.call"), ({"back_s": 0.0}, "plan.back_s"),
    ({"note": "x" * 2000}, "plan.note"), ({"more": 1}, "plan.more"),
])
def test_a_float_plan_that_says_too_little_is_named(client, changes, field):
    status, error = send(
        client, "post", "/api/plans/float/", {"water_id": water_id(), "plan": {**FLOAT, **changes}}
    )
    assert (status, error["field"]) == (422, field)


@contextmanager
def service(answer, status=200, delay_s=0.0):
    """A forecast service that says what it is told to."""

    class Says(BaseHTTPRequestHandler):
        def do_GET(self):
            time.sleep(delay_s)
            self.send_response(status)
            self.end_headers()
            self.wfile.write(answer(self.path) if callable(answer) else answer)

        def log_message(self, *args):
            pass

    server = ThreadingHTTPServer(("127.0.0.1", 0), Says)
    threading.Thread(target=server.serve_forever, args=(0.01,), daemon=True).start()
    try:
        yield f"http://127.0.0.1:{server.server_port}"
    finally:
        server.shutdown()
        server.server_close()


def weather(client, day=DAY):
    return send(client, "get", f"/api/plans/weather/?water_id={water_id()}&day={day}")


def good(path):
    midnight = float(path.split("midnight_s=")[1].split("&")[0])
    return json.dumps({"name": "a day", "hours": [
        {
            "at_s": midnight + 3600.0 * h, "air_degc": 9.0, "humidity": 0.6, "cloud": 0.2,
            "wind_mps": 2.0, "wind_from_deg": 200.0,
        }
        for h in range(3, 24)
    ]}).encode()


def test_the_service_s_answer_is_taken_kept_and_its_age_said(client, settings):
    with service(good) as settings.FORECAST_URL:
        status, fresh = weather(client)
    assert (status, fresh["trouble"], fresh["words"]) == (200, "", "a day")
    assert len(fresh["hours"]) == 21
    # The service is gone now: the last answer stands, with its age and why.
    _, kept = weather(client)
    assert kept["hours"] == fresh["hours"]
    assert kept["age_s"] > 0.0
    assert "does not answer" in kept["trouble"]
    _, other = weather(client, "2026-04-15")
    assert other["hours"] == []
    assert "does not answer" in other["trouble"]


@pytest.mark.parametrize(("answer", "status", "word"), [
    (b"<html>", 200, "no forecast"),
    (b"{}", 200, "cannot be"),
    (b"[1, 2]", 200, "cannot be"),
    (b'{"name": "x", "hours": [{"at_s": 1}]}', 200, "cannot be"),
    (lambda path: good(path).replace(b'"cloud": 0.2', b'"cloud": 7'), 200, "cannot be"),
    (lambda path: good(path).replace(b'"air_degc": 9.0', b'"air_degc": NaN'), 200, "cannot be"),
    (b"x" * 300_000, 200, "too much"),
    (b"no", 500, "status 500"),
    (b"[" * 50_000, 200, "no forecast"),
])
def test_rubbish_is_told_and_old_data_kept(client, settings, answer, status, word):
    with service(good) as settings.FORECAST_URL:
        weather(client)
    with service(answer, status=status) as settings.FORECAST_URL:
        code, told = weather(client)
    assert code == 200
    assert word in told["trouble"]
    assert len(told["hours"]) == 21
    assert KeptForecast.objects.count() == 1


def test_a_slow_service_is_not_waited_for(client, settings, monkeypatch):
    monkeypatch.setattr("plans.weather.TIMEOUT", httpx.Timeout(0.2))
    with service(good, delay_s=1.0) as settings.FORECAST_URL:
        _, told = weather(client)
    assert "too slow" in told["trouble"]
    settings.FORECAST_URL = ""
    assert "type the weather" in weather(client)[1]["trouble"]


def test_the_stand_in_speaks_the_client_s_protocol(client, settings):
    port = 18_765
    process = subprocess.Popen(
        [sys.executable, "-m", "standins.forecast", "--port", str(port)], cwd=ROOT
    )
    try:
        settings.FORECAST_URL = f"http://127.0.0.1:{port}"
        for _ in range(50):
            _, told = weather(client)
            if not told["trouble"]:
                break
            time.sleep(0.1)
        assert "invented" in told["words"]
        status, day = send(
            client, "post", "/api/plans/day/",
            asked(typed=None, hours=told["hours"], weather_words=told["words"]),
        )
        assert status == 200
        assert day["view"]["weather_words"] == told["words"]
        days = httpx.get(f"{settings.FORECAST_URL}/days").json()["days"]
        assert len(days) == 5
        assert httpx.get(f"{settings.FORECAST_URL}/forecast?date=x").status_code == 400
        assert httpx.get(f"{settings.FORECAST_URL}/else").status_code == 404
    finally:
        process.kill()
        process.wait()


WEATHER = (
    "hour,air_f,wind_mph,cloud,wind_from,thunder\n"
    "6,38,2,10,200,0\n12:00,50,10,50,250,40\n18,46,4,0,300,0\n"
)


def test_weather_of_a_file_is_read_by_the_hour(client):
    status, read = send(client, "post", "/api/plans/read/", {
        "kind": "weather", "text": WEATHER, "water_id": water_id(), "day": DAY,
    })
    assert status == 200
    hours = read["hours"]
    assert len(hours) == 21
    # Nine o'clock: half-way between 38 and 50 °F, 2 and 10 mph, 10 and 50 per cent.
    nine = hours[6]
    assert nine["air_degc"] == pytest.approx(degc_from_degf(44.0))
    assert nine["wind_mps"] == pytest.approx(6.0 * 0.44704)
    assert nine["cloud"] == pytest.approx(0.3)
    assert nine["thunder"] == pytest.approx(0.2)
    assert (nine["wind_from_deg"], hours[0]["wind_from_deg"]) == (200.0, 200.0)
    assert hours[0]["air_degc"] == pytest.approx(degc_from_degf(38.0))
    assert hours[20]["air_degc"] == pytest.approx(degc_from_degf(46.0))
    status, day = send(client, "post", "/api/plans/day/", asked(typed=None, hours=hours))
    assert status == 200
    assert day["hours"] == hours


def test_profile_of_a_file_brings_its_oxygen(client):
    text = "depth_ft;temperature_f;oxygen_mgl\n0;68;9.1\n10;66;\n40;50;3\n"
    status, read = send(client, "post", "/api/plans/read/", {"kind": "profile", "text": text})
    assert status == 200
    assert read["profile"][2] == [pytest.approx(12.192), pytest.approx(10.0)]
    assert read["oxygen"] == [[0.0, 9.1], [pytest.approx(12.192), 3.0]]


@pytest.mark.parametrize(("kind", "text", "field"), [
    ("weather", "", "text"),
    ("weather", "hour,air,wind_mph\n6,38,2\n", "text"),
    ("weather", "hour,air_f,wind_mph\n6,38,2\n", "text"),
    ("weather", "hour,air_f,wind_mph\n6,38,2\n5,38,2\n", "row 3.hour"),
    ("weather", "hour,air_f,wind_mph\nnoon,38,2\n7,38,2\n", "row 2.hour"),
    ("weather", "hour,air_f,wind_mph\n6,38,-2\n7,38,2\n", "row 2.wind_mps"),
    ("weather", "hour,air_f,wind_mph,cloud\n6,38,2,200\n7,38,2,0\n", "row 2.cloud"),
    ("profile", "depth_m,temperature_c\n5,9\n1,8\n", "profile[1].depth_m"),
    ("profile", "depth_m,temperature_c\n5,warm\n", "row 2.temperature"),
    ("profile", "depth_m,temperature_c\n5,nan\n", "row 2.temperature"),
    ("profile", "depth_m\n5\n", "text"),
    ("music", "x", "kind"),
    ("profile", None, "text"),
])
def test_a_file_that_cannot_be_read_says_where(client, kind, text, field):
    status, error = send(client, "post", "/api/plans/read/", {
        "kind": kind, "text": text, "water_id": water_id(), "day": DAY,
    })
    assert status == 422, error
    assert error["field"] == field


def outfit_id():
    return Outfit.objects.get(name__contains="boat", owner__username="demo").pk


def test_opening_spread_of_a_phase_has_every_number_at_two_speeds(client):
    _, calm = send(client, "post", "/api/plans/day/", asked())
    warming = calm["view"]["phases"][1]
    middle = 0.5 * (warming["start_s"] + warming["end_s"])
    body = {"day": asked(), "outfit_id": outfit_id(), "at_s": middle}
    status, opening = send(client, "post", "/api/trips/planned-opening/", body)
    assert status == 200, opening
    assert opening["method_name"] == warming["method"]["name"]
    assert opening["low_mps"] == warming["method"]["speed_low_mps"]
    assert len(opening["numbers"]) == len(opening["spread"]["rods"]) >= 4
    for rod in opening["numbers"]:
        slow, fast = rod["at"]
        assert slow["line"]["depth_m"] == pytest.approx(rod["depth_m"], abs=0.02)
        if fast["line"] is not None and fast["line"]["number"]["kind"] == "colours":
            # Leadcore bows up when it goes faster: more of it for the same depth.
            assert fast["line"]["number"]["setting_m"] > slow["line"]["number"]["setting_m"]
    assert Trip.objects.filter(name="planned").count() == 0
    status, error = send(client, "post", "/api/trips/planned-opening/", {**body, "at_s": 1.0})
    assert (status, error["field"]) == (422, "at_s")
    status, error = send(client, "post", "/api/trips/planned-opening/", {**body, "outfit_id": 0})
    assert (status, error["field"]) == (422, "outfit_id")
    for begin, field in (("pink", "begin"), ([{}] * 13, "begin"), ([{"lure": 3}], "begin[0]")):
        status, error = send(
            client, "post", "/api/trips/planned-opening/", {**body, "begin": begin}
        )
        assert status == 422
        assert error["field"].startswith(field)
    status, error = send(client, "post", "/api/trips/planned-opening/", {**body, "day": []})
    assert (status, error["field"]) == (422, "water_id")


def test_a_river_s_bars_stand_beside_its_day(client):
    river = {"current_mps": 0.5, "fell_m": 0.3}
    day = asked(water_id=water_id("Lower"), species="striper", surface_degc=14.0, river=river)
    status, planned = send(client, "post", "/api/plans/day/", day)
    assert status == 200
    shallows = planned["river"]["shallows"]
    still = send(client, "post", "/api/plans/day/", {**day, "river": {}})[1]["river"]["shallows"]
    assert shallows
    assert shallows[0]["depth_m"] == pytest.approx(max(still[0]["depth_m"] - 0.3, 0.0))
    assert send(client, "post", "/api/plans/day/", asked())[1]["river"] is None


def test_a_plan_begins_from_the_last_profile(client, demo):
    _, last = send(client, "get", f"/api/trips/last-surface/?water_id={water_id()}")
    assert last["temperature_degc"] is not None
    start_s = demo.started_at.timestamp()
    AppendEvents(demo, [
        {
            "id": str(uuid.uuid4()), "at_s": start_s + 60.0 + depth, "type": "temperature_read",
            "payload": {"temperature_degc": 12.0 - depth / 3.0, "depth_m": depth},
        }
        for depth in (3.0, 9.0)
    ]).execute()
    _, last = send(client, "get", f"/api/trips/last-surface/?water_id={water_id()}")
    assert [9.0, 9.0] in last["profile"]
    assert last["profile"] == sorted(last["profile"])
