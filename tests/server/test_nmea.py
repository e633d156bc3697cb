"""Instruments: sentences as they come, connections that break, and what goes into the trip."""

from __future__ import annotations

import asyncio
import json
import math
import random
import socket
import time
from pathlib import Path
from typing import Any

import pynmea2
import pytest
from hypothesis import given
from hypothesis import strategies as st
from standins.boat import Boat, along

from apart import played, until
from coldwake_core.boat.instruments import BOUNDS, Board, News, Source, Sources
from coldwake_core.chart.features import Feature, beyond_m
from coldwake_core.chart.grid import DepthGrid
from coldwake_core.constants import KNOT_MPS
from coldwake_core.decode import decode
from coldwake_core.lakesim.spoken import sentence
from instruments import live
from instruments.actions.record_news import RecordNews
from instruments.hub import Hub
from instruments.models import Listening
from instruments.sentences import Lines, Reader
from paths import ROOT

HANDBOOK = b"$GPRMC,123519,A,4807.038,N,01131.000,E,022.4,084.4,230394,003.1,W*6A"


def framed(body: str) -> bytes:
    return sentence(body).strip().encode()


def said(line: bytes) -> dict[str, float]:
    return {one.quantity: one.value for one in Reader().read(line)}


def test_the_handbook_sentence_is_read():
    reader = Reader()
    found = {one.quantity: one for one in reader.read(HANDBOOK)}
    # NMEA 0183's own example: 48°07.038' N, 11°31.000' E, 22.4 knots, 84.4 degrees.
    assert found["place"].place.latitude_deg == pytest.approx(48.0 + 7.038 / 60.0)
    assert found["place"].place.longitude_deg == pytest.approx(11.0 + 31.0 / 60.0)
    assert found["ground_speed"].value == pytest.approx(22.4 * 1852.0 / 3600.0)
    assert found["course"].value == 84.4
    assert reader.counts == {"good": 1}


@pytest.mark.parametrize(("body", "expected"), [
    ("IIVHW,,T,245.1,M,1.56,N,2.89,K", {"water_speed": 1.56 * KNOT_MPS}),
    ("IIVHW,,T,245.1,M,,N,3.6,K", {"water_speed": 1.0}),
    ("SDDPT,12.3,0.5", {"depth": 12.8}),
    ("PCWK,7.4", {"mark": 7.4}),
    ("SDDPT,12.3,-0.5", {"depth": 12.3}),
    ("SDDPT,12.3,", {"depth": 12.3}),
    ("SDDBT,40.4,f,12.3,M,6.7,F", {"depth": 12.3}),
    ("SDDBT,40.0,f,,M,,F", {"depth": 40.0 * 0.3048}),
    ("IIMTW,9.8,C", {"water_temperature": 9.8}),
    ("IIMTW,50.0,F", {"water_temperature": 10.0}),
    ("WIMWV,214.8,R,10.0,N,A", {"wind_angle": 214.8, "wind_speed": 10.0 * KNOT_MPS}),
    ("WIMWV,214.8,R,10.0,N,V", {}),
    ("WIMWV,214.8,T,10.0,N,A", {}),
    ("HCHDG,98.3,1.0,E,12.3,W", {"heading": 87.0}),
    ("GPVTG,54.7,T,34.4,M,5.5,N,10.2,K,A", {"course": 54.7, "ground_speed": 5.5 * KNOT_MPS}),
    ("GPRMC,123519,V,4807.038,N,01131.000,E,022.4,084.4,230394,,", {}),
    ("GPGGA,123519,4807.038,N,01131.000,E,0,00,,,M,,M,,", {}),
])
def test_each_kind_is_read_in_si(body: str, expected: dict[str, float]):
    assert said(framed(body)) == pytest.approx(expected)


def test_south_and_west_are_negative_and_the_dilution_goes_along():
    (one,) = Reader().read(framed("GPGGA,123519,4807.0,S,11500.0,W,1,08,1.7,5,M,46.9,M,,"))
    assert (one.place.latitude_deg, one.place.longitude_deg) == (
        pytest.approx(-48.1166667), pytest.approx(-115.0)
    )
    assert one.value == 1.7


@pytest.mark.parametrize(("line", "counted"), [
    (HANDBOOK.replace(b"*6A", b"*6B"), "checksum"),
    (HANDBOOK.replace(b"022.4", b"822.4"), "checksum"),
    (b"$GPRMC,123519,A,48", "checksum"),
    (framed("GPGSV,1,1,00"), "unknown"),
    (framed("XXABC,1,2,3"), "unknown"),
    (framed("SDDPT,deep,0.5"), "broken"),
    (framed("WIMWV,1.0,R,10.0,Q,A"), "unknown"),
    (b"no sentence at all", "broken"),
    (b"\xff\xfe\x00$", "broken"),
])
def test_what_is_cut_wrong_or_strange_says_nothing_and_is_counted(line: bytes, counted: str):
    reader = Reader()
    assert reader.read(line) == ()
    assert reader.counts == {counted: 1}


STREAM = b"".join(
    sentence(f"SDDPT,{depth / 10:.1f},0.5").encode() for depth in range(50, 90)
)


@given(st.lists(st.integers(0, len(STREAM)), max_size=12))
def test_wherever_the_bytes_are_cut_the_lines_are_the_same(cuts: list[int]):
    lines, at, found = Lines(), 0, []
    for cut in [*sorted(cuts), len(STREAM)]:
        found += list(lines.feed(STREAM[at:cut]))
        at = cut
    assert found == STREAM.strip().split(b"\r\n")
    assert lines.overlong == 0


FIELD = st.one_of(
    st.sampled_from(["", "A", "V", "N", "T", "M", "F", "C", "R", "-1", "1e400", "nan", "9" * 30]),
    st.text(st.characters(min_codepoint=32, max_codepoint=126, exclude_characters="*$,"),
            max_size=12),
)


@given(
    st.sampled_from(["RMC", "GGA", "VTG", "VHW", "DPT", "DBT", "MTW", "MWV", "HDG"]),
    st.lists(FIELD, max_size=14),
)
def test_whatever_stands_in_a_whole_sentence_is_read_or_counted(kind: str, fields: list[str]):
    reader = Reader()
    said = reader.read(framed(",".join([f"II{kind}", *fields])))
    assert sum(reader.counts.values()) == 1
    board = Board(Sources(sources=(source(20_000),)))
    for one in said:
        board.hear("a", one, 0.0)
    # What cannot be is never believed.
    for value in board.values(0.0):
        if value.state == "used" and value.quantity != "place":
            low, high = BOUNDS[value.quantity]
            assert low <= value.value <= high


def test_noise_takes_no_memory_and_a_line_after_it_is_heard():
    rng = random.Random(1)
    lines, reader = Lines(), Reader()
    for _ in range(300):
        for line in lines.feed(rng.randbytes(4096)):
            reader.read(line)
        assert len(lines._rest) <= 120
    for line in lines.feed(b"x" * 10_000 + b"\n" + HANDBOOK + b"\r\n"):
        reader.read(line)
    assert reader.counts["good"] == 1
    assert lines.overlong > 0


def test_what_we_say_ourselves_is_what_the_library_reads():
    assert framed(HANDBOOK[1:-3].decode()) == HANDBOOK
    parsed = pynmea2.parse(framed("SDDPT,12.3,0.5").decode(), check=True)
    assert (float(parsed.depth), float(parsed.offset)) == (12.3, 0.5)


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def source(port: int, key: str = "a", **changes: Any) -> Source:
    return Source(**{
        "id": key, "name": key, "kind": "tcp", "host": "127.0.0.1", "port": port, **changes
    })


def words(hub: Hub, key: str = "a") -> str:
    return str(next(s for s in hub.state()["sources"] if s["id"] == key)["words"])


def used(hub: Hub) -> dict[str, tuple[str, float]]:
    return {
        v["quantity"]: (v["source_id"], v["value"])
        for v in hub.state()["values"] if v["state"] == "used"
    }


def test_a_source_that_comes_late_breaks_off_and_comes_back_is_heard():
    async def play() -> None:
        port = free_port()
        hub = Hub(Sources(sources=(source(port),)))
        hub.start()
        await until(lambda: "Nothing listens" in words(hub))
        told = iter([b"$SDDPT,1", b"", framed("SDDPT,14.0,0.5") + b"\r\n"])

        async def device(_: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
            # The first connection breaks off in the middle of a sentence.
            data = next(told, b"")
            writer.write(data)
            await writer.drain()
            if len(data) > 10:
                await asyncio.sleep(5.0)
            writer.close()

        async with await asyncio.start_server(device, "127.0.0.1", port):
            await until(lambda: "depth" in used(hub), 20.0)
            assert used(hub)["depth"] == ("a", pytest.approx(14.5))
            assert words(hub) == ""
        await hub.stop()

    played(play())


def test_what_is_sent_to_a_port_is_heard_and_a_taken_port_is_named():
    async def play() -> None:
        port, taken = free_port(), socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        taken.bind(("0.0.0.0", 0))
        hub = Hub(Sources(sources=(
            source(port, "a", kind="udp", host=""),
            source(taken.getsockname()[1], "b", kind="udp", host=""),
            source(free_port(), "c", is_on=False),
        )))
        hub.start()
        await until(lambda: "Another program has this port" in words(hub, "b"))
        await until(lambda: "nothing that is understood" in words(hub, "a"))
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as device:
            device.sendto(framed("IIMTW,9.8,C"), ("127.0.0.1", port))
            device.sendto(b"\xff" * 400, ("127.0.0.1", port))
            await until(lambda: "water_temperature" in used(hub))
        assert used(hub)["water_temperature"] == ("a", 9.8)
        assert words(hub, "c") == "Switched off."
        await hub.stop()
        taken.close()

    played(play())


def boat(seed: int = 1) -> tuple[Boat, tuple[Feature, ...]]:
    chart = decode(DepthGrid, json.loads((ROOT / "demo/charts/sallow_tarn.json").read_text()))
    stands = json.loads((ROOT / "demo/waters/sallow_tarn.json").read_text())["features"]
    features = tuple(decode(Feature, one) for one in stands)
    return Boat(chart=chart, path=along(chart, 14.0, features), seed=seed), features


@pytest.mark.parametrize("seed", [1, 2])
def test_the_stand_in_boat_keeps_its_lures_off_the_bottom_and_out_of_closed_water(seed: int):
    sailing, features = boat(seed)
    shut = [one for one in features if one.kind in ("closed_ring", "hazard")]
    assert len(shut) == 2
    deepest_lure_m = 30.0 * 0.3048
    courses = set()
    for second in range(4 * 3600):
        sailing.step(1.0)
        assert sailing.depth_m > deepest_lure_m + 1.2
        if second % 10 == 0:
            assert min(beyond_m(one, sailing.place) for one in shut) > 0.0
            courses.add(round(sailing.course_deg / 30.0))
    # It goes there and back, and its turns are a boat's with lines out.
    assert len(courses) > 6


def test_an_hour_of_the_stand_in_boat_is_heard_thinned_and_told_as_it_was():
    sailing, _ = boat()
    hub = Hub(Sources(sources=(source(20_000),)))
    now, found = [1_000_000.0], []
    hub_time = pytest.MonkeyPatch()
    hub_time.setattr("instruments.hub.time.time", lambda: now[0])
    try:
        for _ in range(3600):
            now[0] += 1.0
            sailing.step(1.0)
            hub.ears[0].feed("".join(sailing.says(now[0])).encode())
            news = hub.take()
            found += [(now[0], one) for one in news]
            for one in news:
                if one.type == "sounded":
                    assert one.payload["bottom_m"] == pytest.approx(sailing.depth_m, abs=0.35)
                if one.type == "position_fixed":
                    assert one.payload["latitude_deg"] == pytest.approx(
                        sailing.place.latitude_deg, abs=1e-4
                    )
    finally:
        hub_time.undo()
    assert hub.ears[0].reader.counts["good"] >= 4 * 3600
    # An eighth of what a day may be.
    assert len(found) < 6000 / 8
    assert {one.type for _, one in found} == {
        "position_fixed", "sounded", "speed_changed", "temperature_read", "mark_seen"
    }


pytest_db = pytest.mark.django_db


@pytest_db
def test_news_go_into_the_latest_open_trip_and_a_bad_one_stops_no_other(user: Any, demo: Any):
    before = demo.events.count()
    told = RecordNews(owner_pk=user.pk, news=(
        News(type="sounded", payload={"bottom_m": -4.0}),
        News(type="sounded", payload={"bottom_m": 15.2}),
        News(type="temperature_read", payload={"temperature_degc": 10.4, "depth_m": 0.0}),
    )).execute()
    assert (told["trip"], told["taken"]) == ("April morning", 2)
    assert "bottom_m" in told["refused"]
    assert demo.events.count() == before + 2
    user.trips.update(is_ended=True)
    assert RecordNews(owner_pk=user.pk, news=()).execute()["trip"] is None


@pytest_db
def test_the_demo_s_boat_is_not_recorded_for_weeks(user: Any, demo: Any):
    demo.sun = {**demo.sun, "dark_s": demo.events.last().at_s - 1.0}
    demo.save()
    told = RecordNews(
        owner_pk=user.pk, news=(News(type="sounded", payload={"bottom_m": 15.2}),)
    ).execute()
    assert (told["taken"], told["refused"]) == (0, "The demo's day is over.")


def put(client: Any, *sources: Any) -> Any:
    return client.put("/api/instruments/", {"sources": list(sources)}, format="json")


PLOTTER = {"id": "a", "name": "Sounder", "kind": "tcp", "host": "192.168.4.1", "port": 10110}


@pytest_db
def test_sources_are_kept_in_their_order_and_are_nobody_else_s(client_in: Any, stranger: Any):
    other = {"id": "b", "name": "GPS", "kind": "udp", "port": 10110, "is_on": False}
    assert put(client_in, PLOTTER, other).status_code == 200
    told = client_in.get("/api/instruments/").json()
    assert [s["name"] for s in told["sources"]["sources"]] == ["Sounder", "GPS"]
    assert told["heard"] is None
    assert stranger.get("/api/instruments/").json()["sources"]["sources"] == []


@pytest_db
@pytest.mark.parametrize(("changes", "field"), [
    ({"host": "8.8.8.8"}, "sources[0].host"),
    ({"host": "boat.example"}, "sources[0].host"),
    ({"host": "0.0.0.0"}, "sources[0].host"),
    ({"host": ""}, "sources[0].host"),
    ({"port": 22}, "sources[0].port"),
    ({"port": "x"}, "sources[0].port"),
    ({"kind": "pigeon"}, "sources[0].kind"),
    ({"kind": "serial"}, "sources[0].port"),
    ({"kind": "serial", "port": 0, "host": "", "device": "/etc/passwd"}, "sources[0].device"),
    ({"kind": "serial", "port": 0, "host": "", "device": "/dev/ttyUSB0/../../etc/passwd"},
     "sources[0].device"),
    ({"kind": "serial", "port": 0, "host": "", "device": "/dev/serial/by-id/../../mem"},
     "sources[0].device"),
    ({"kind": "log", "port": 0, "host": "", "pace": 200}, "sources[0].pace"),
    ({"name": ""}, "sources[0].name"),
    ({"wheel_factor": 0}, "sources[0].wheel_factor"),
])
def test_a_source_that_cannot_be_is_named_and_the_old_ones_stay(
    client_in: Any, changes: dict[str, Any], field: str
):
    put(client_in, PLOTTER)
    answer = put(client_in, {**PLOTTER, "id": "c", **changes})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert Listening.objects.get().sources[0]["id"] == "a"


@pytest_db
def test_what_is_heard_is_told_while_it_is_fresh(
    client_in: Any, user: Any, settings: Any, tmp_path: Path, monkeypatch: Any
):
    settings.INSTRUMENTS = tmp_path
    put(client_in, PLOTTER)
    hub = Hub(decode(Sources, {"sources": Listening.objects.get().sources}))
    hub.ears[0].feed(framed("SDDPT,12.3,0.5") + b"\r\n")
    live.write(user.pk, {**hub.state(), "trip": "x", "recorded": 3, "refused": ""})
    heard = client_in.get("/api/instruments/").json()["heard"]
    assert [(v["quantity"], v["state"]) for v in heard["values"]] == [("depth", "used")]
    assert heard["values"][0]["value"] == pytest.approx(12.8)
    assert math.isclose(heard["sources"][0]["age_s"], 0.0, abs_tol=5.0)
    assert next(tmp_path.glob("*.json")).stat().st_mode & 0o777 == 0o600
    now = time.time()
    monkeypatch.setattr("instruments.live.time.time", lambda: now + 60.0)
    assert client_in.get("/api/instruments/").json()["heard"] is None
