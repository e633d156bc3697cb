"""The demo alive for an hour: its boat sails and is recorded, and Fish shows what it should."""

from __future__ import annotations

import json
import time
from collections import Counter
from typing import Any

import pytest
from standins.boat import TURN_M, Boat, along

from coldwake_core.boat.instruments import Source, Sources
from coldwake_core.chart.features import Feature
from coldwake_core.chart.grid import DepthGrid
from coldwake_core.decode import decode
from instruments.actions.record_news import RecordNews
from instruments.hub import Hub
from paths import ROOT


def boat(water: str, depth_m: float, **changes: Any) -> Boat:
    chart = decode(DepthGrid, json.loads((ROOT / f"demo/charts/{water}.json").read_text()))
    stands = json.loads((ROOT / f"demo/waters/{water}.json").read_text())["features"]
    features = tuple(decode(Feature, one) for one in stands)
    turn_m = changes.get("turn_m", TURN_M)
    return Boat(chart=chart, path=along(chart, depth_m, features, turn_m), **changes)


@pytest.mark.django_db
def test_an_hour_of_the_demo_is_a_boat_on_its_contour_with_its_lures_in_the_water(
    user: Any, demo: Any, client_in: Any, monkeypatch: pytest.MonkeyPatch
):
    sailing = boat("sallow_tarn", 14.0)
    hub = Hub(Sources(sources=(Source(id="a", name="a", kind="udp", port=20_000),)))
    now = [time.time()]
    monkeypatch.setattr(time, "time", lambda: now[0])
    told: Counter[str] = Counter()
    headings, bottoms = set(), []
    for second in range(3600):
        now[0] += 1.0
        sailing.step(1.0)
        hub.ears[0].feed("".join(sailing.says(now[0])).encode())
        news = hub.take()
        if news:
            done = RecordNews(owner_pk=user.pk, news=news).execute()
            assert (done["taken"], done["refused"]) == (len(news), "")
            told.update(one.type for one in news)
        if second % 120 < 119:
            continue
        view = client_in.get(f"/api/trips/{demo.pk}/fish/").json()
        # What Fish shows is what lies under the boat, within a foot and what it moves in a second.
        assert view["bottom_m"] == pytest.approx(sailing.depth_m, abs=0.4)
        assert view["speed_mps"] == pytest.approx(sailing.speed_mps, abs=0.12)
        assert view["keep_out"] == []
        for rod in view["rods"]:
            if rod["line"] is not None:
                assert rod["line"]["clearance_m"] > 0.0, rod["name"]
        headings.add(round(sailing.course_deg / 30.0))
        bottoms.append(view["bottom_m"])
    # It holds a contour of 14 m but where it turns, which it does with lines out; it passes fish.
    assert sum(abs(depth - 14.0) < 1.5 for depth in bottoms) >= 20
    assert len(headings) >= 5
    assert told["mark_seen"] >= 10
    assert sum(told.values()) < 6000 / 8


def test_the_stand_in_boat_of_the_river_keeps_to_the_water_and_is_carried_along():
    sailing = boat(
        "lower_skerrel", 5.0, turn_m=20.0, speed_mps=1.79, current_mps=0.54, flows_deg=180.0,
        fish_m=2.0,
    )
    up, down = [], []
    for _ in range(3600):
        sailing.step(1.0)
        assert sailing.depth_m > 1.5
        north = min(sailing.course_deg, 360.0 - sailing.course_deg)
        if north < 20.0:
            up.append(sailing.ground_mps)
        elif north > 160.0:
            down.append(sailing.ground_mps)
    # By hand: 1.79 - 0.54 against the river, which runs south, and 1.79 + 0.54 with it.
    assert sum(up) / len(up) == pytest.approx(1.25, abs=0.1)
    assert sum(down) / len(down) == pytest.approx(2.33, abs=0.1)
