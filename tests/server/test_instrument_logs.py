"""Instruments on a cable and in a log: pulled out, played again, or taken into their trip."""

from __future__ import annotations

import os
import time
from pathlib import Path
from typing import Any

import pytest

from apart import played, until
from coldwake_core.boat.instruments import Source, Sources
from coldwake_core.lakesim.spoken import sentence
from instruments.hub import Hub
from instruments.live import log_path
from instruments.logs import news


def source(kind: str, **changes: Any) -> Source:
    return Source(**{"id": "a", "name": "a", "kind": kind, **changes})


def words(hub: Hub) -> str:
    return str(hub.state()["sources"][0]["words"])


def heard(hub: Hub) -> dict[str, tuple[float, str]]:
    return {v["quantity"]: (v["value"], v["state"]) for v in hub.state()["values"]}


def test_a_cable_is_heard_and_pulled_out_and_said_so():
    async def play() -> None:
        device, end = os.openpty()
        hub = Hub(Sources(sources=(source("serial", device=os.ttyname(end)),)))
        hub.start()
        await until(lambda: "nothing that is understood" in words(hub))

        def spoken() -> bool:
            os.write(device, sentence("SDDPT,14.0,0.5").encode())
            return "depth" in heard(hub)

        await until(spoken)
        assert heard(hub)["depth"] == (pytest.approx(14.5), "used")
        os.close(end)
        os.close(device)
        await until(lambda: "pulled out" in words(hub))
        await hub.stop()

    played(play())


def test_a_cable_that_is_not_there_is_named():
    async def play() -> None:
        hub = Hub(Sources(sources=(source("serial", device="/dev/ttyUSB97"),)))
        hub.start()
        await until(lambda: "no such device" in words(hub))
        await hub.stop()

    played(play())


def clock(at_s: float) -> str:
    return time.strftime("%H%M%S", time.gmtime(at_s))


def rmc(at_s: float, status: str = "A") -> str:
    """A boat at 43.998 N, 115.002 W that heads north at 1.5 knots."""
    day = time.strftime("%d%m%y", time.gmtime(at_s))
    return sentence(
        f"GPRMC,{clock(at_s)},{status},4359.8800,N,11500.1200,W,1.50,0.0,{day},,,A"
    )


def test_a_log_is_played_sixty_times_as_fast_by_its_own_clock_and_never_believed(tmp_path: Path):
    log = tmp_path / "day.log"
    begin_s = 1_776_000_000.0
    # Four minutes, and between them an hour in which the log was laid aside.
    moments = [begin_s + 10.0 * t for t in range(12)] + [begin_s + 3600.0 + 10.0 * t
                                                         for t in range(12)]
    log.write_text("".join(
        rmc(at_s) + sentence(f"SDDPT,{10.0 + i:.1f},0.0") for i, at_s in enumerate(moments)
    ))

    async def play() -> float:
        hub = Hub(Sources(sources=(source("log", pace=60.0),)), log)
        begun = time.monotonic()
        hub.start()
        await until(lambda: "Played to its end" in words(hub), 20.0)
        assert heard(hub)["depth"] == (33.0, "replayed")
        assert hub.take() == ()
        await hub.stop()
        return time.monotonic() - begun

    # 220 s of the log's clock, sixty times as fast, are 3.7 s; the hour between is not waited for.
    assert 220.0 / 60.0 - 0.1 <= played(play()) < 15.0


def test_a_log_is_taken_by_its_own_dates_whatever_stands_around_them():
    begin_s = 1_776_000_000.0
    text = (
        sentence("SDDPT,3.0,0.0")  # before any date: of no moment
        + rmc(begin_s - 9e8, "V")  # a receiver without a fix has no date either
        + rmc(begin_s) + sentence("SDDPT,10.0,0.0")
        + rmc(begin_s + 30.0) + sentence("SDDPT,11.0,0.0")
        + rmc(begin_s - 500.0) + sentence("SDDPT,20.0,0.0")  # set back: not followed
        + sentence(f"GPGGA,{clock(begin_s + 60.0)},4359.8,N,11500.1,W,1,8,1.0,0,M,0,M,,")
        + sentence("SDDPT,12.0,0.0") + "$SDDPT,99"
    )
    told = [
        (at_s - begin_s, one.payload["bottom_m"])
        for at_s, one in news(text.encode(), source("log", transducer_m=0.5))
        if one.type == "sounded"
    ]
    assert told == [(0.0, 10.5), (30.0, 11.5), (60.0, 12.5)]


pytest_db = pytest.mark.django_db
LOG = "/api/instruments/log/"


@pytest.fixture
def shelf(settings: Any, tmp_path: Path) -> Path:
    settings.INSTRUMENTS = tmp_path / "instruments"
    return tmp_path


def bring(client: Any, text: str) -> Any:
    return client.put(LOG, text.encode(), content_type="text/plain")


@pytest_db
def test_a_log_goes_into_its_trip_once_and_into_nobody_else_s(
    client_in: Any, stranger: Any, user: Any, demo: Any, shelf: Path
):
    begin_s = demo.started_at.timestamp() + 600.0
    text = "".join(
        rmc(begin_s + t) + sentence(f"SDDPT,{10.0 + 0.05 * t:.2f},0.0") for t in range(0, 60, 5)
    ) + rmc(begin_s + 40 * 86400.0) + sentence("SDDPT,40.0,0.0")
    told = bring(client_in, text).json()
    assert (told["lines"], told["good"]) == (26, 26)
    assert (told["first_s"], told["last_s"]) == (int(begin_s), int(begin_s + 40 * 86400.0))
    assert log_path(user.pk).stat().st_mode & 0o777 == 0o600
    before = demo.events.count()
    asked = {"trip_id": str(demo.pk)}
    taken = client_in.post(LOG, asked, format="json").json()
    # By hand: 10.00, 10.25 ... 12.75, each a quarter of a metre on, and the way; later is outside.
    depths = list(demo.events.filter(
        type="sounded", at_s__gte=int(begin_s), at_s__lte=begin_s + 60.0
    ).order_by("at_s").values_list("payload__bottom_m", flat=True))
    assert [d for d in depths if d in [10.0 + 0.25 * i for i in range(12)]] == [
        10.0 + 0.25 * i for i in range(12)
    ]
    assert taken["outside"] >= 1
    assert taken["refused"] == ""
    assert demo.events.count() == before + taken["taken"]
    again = client_in.post(LOG, asked, format="json").json()
    assert (again["taken"], again["known"]) == (0, taken["taken"])
    assert stranger.post(LOG, asked, format="json").status_code == 404
    # The demo's owner goes, and with them what was brought.
    user.delete()
    assert not log_path(user.pk or 0).exists()
    assert not list((shelf / "instruments").glob("*.log"))


@pytest_db
@pytest.mark.parametrize("text", ["", "a,b,c\n1,2,3\n", "$GPRMC,123519,A*00\n"])
def test_a_file_in_which_nothing_is_understood_is_refused_and_the_old_one_stays(
    client_in: Any, user: Any, shelf: Path, text: str
):
    assert bring(client_in, rmc(1.0)).status_code == 200
    answer = bring(client_in, text)
    assert (answer.status_code, answer.json()["field"]) == (422, "log")
    assert log_path(user.pk).read_bytes() == rmc(1.0).encode()


@pytest_db
def test_a_log_of_another_day_and_none_at_all_are_refused(
    client_in: Any, demo: Any, shelf: Path
):
    asked = {"trip_id": str(demo.pk)}
    assert "brought here first" in client_in.post(LOG, asked, format="json").json()["message"]
    bring(client_in, rmc(1.0) + sentence("SDDPT,10.0,0.0"))
    assert "this trip's own day" in client_in.post(LOG, asked, format="json").json()["message"]
    bad = client_in.post(LOG, {**asked, "source_id": "x"}, format="json")
    assert (bad.status_code, bad.json()["field"]) == (422, "source_id")


@pytest_db
def test_a_wheel_is_computed_from_runs_and_kept_by_nobody(client_in: Any):
    def run(course: float, ground: float) -> list[dict[str, float]]:
        return [{"ground_mps": ground, "wheel_mps": 0.5, "course_deg": course}] * 30

    asked = {"there": run(0.0, 0.8), "back": run(180.0, 0.4)}
    answer = client_in.post("/api/instruments/wheel/", asked, format="json")
    # By hand: (0.8 + 0.4) / (0.5 + 0.5).
    assert answer.json() == {"wheel_factor": pytest.approx(1.2)}
    asked["back"] = run(90.0, 0.4)
    answer = client_in.post("/api/instruments/wheel/", asked, format="json")
    assert (answer.status_code, answer.json()["field"]) == (422, "back")
