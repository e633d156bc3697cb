"""The door: JSON in, JSON out, and errors as data."""

from __future__ import annotations

import gc
import json
import subprocess
import sys
from typing import Any

from trip_cases import at, event, rigged, trip_document

from coldwake_core.bridge import Bridge
from paths import ROOT


def call(bridge: Bridge, name: str, **args: Any) -> dict[str, Any]:
    answer: dict[str, Any] = json.loads(bridge.call(json.dumps({"call": name, "args": args})))
    return answer


def opened() -> Bridge:
    bridge = Bridge()
    events = [*rigged(), event("line_set", 1, rod_id="rod-3", setting_m=5.0)]
    assert call(bridge, "open", trip=trip_document(), events=events)["value"] == 7
    return bridge


def test_rods_alone_are_those_of_the_view():
    bridge = opened()
    call(bridge, "add", event=event("hit", 9, rod_id="rod-1"))
    rods = call(bridge, "rods", now_s=at(10))["value"]
    assert rods == call(bridge, "view", now_s=at(10))["value"]["rods"]
    assert rods[0]["tally"]["hits"] == 1


def test_view_comes_back_as_json():
    view = call(opened(), "view", now_s=at(10))["value"]
    assert len(view["rods"]) == 6
    assert view["rods"][2]["line"]["number"]["kind"] == "counter"


def test_number_for_a_depth_puts_the_lure_there():
    bridge = opened()
    line = call(bridge, "number_for", rod_id="rod-3", depth_m=9.0)["value"]
    assert abs(line["depth_m"] - 9.0) < 0.01
    again = call(bridge, "where", rod_id="rod-3", setting_m=line["number"]["setting_m"])["value"]
    assert again["depth_m"] == line["depth_m"]


def test_lines_at_another_speed_keep_the_numbers():
    lines = call(opened(), "lines_at", speed_mps=1.2)["value"]
    assert [line["number"]["setting_m"] for line in lines] == [5.0]
    # A speed that is only tried comes with its doubt too, to first order.
    (line,) = lines
    assert 0.0 < line["shallow_m"] < line["depth_m"] < line["deep_m"]


def test_errors_are_data_that_name_the_field():
    bridge = opened()
    below = call(bridge, "number_for", rod_id="rod-3", depth_m=25.0)
    assert (below["ok"], below["error"]["field"]) == (False, "depth_m")
    deep = call(bridge, "number_for", rod_id="rod-1", depth_m=19.0)
    assert deep["error"]["code"] == "too_deep"
    assert 0.0 < deep["error"]["limit"] < 19.0
    assert call(bridge, "lines_at", speed_mps=-1)["error"]["field"] == "speed_mps"
    assert call(bridge, "dance")["error"]["field"] == "call"
    assert call(Bridge(), "view", now_s=at(1))["error"]["field"] == "call"


def test_replacing_the_events_forgets_what_was_added():
    bridge = opened()
    call(bridge, "add", event=event("hit", 2, rod_id="rod-3"))
    call(bridge, "replace", events=rigged())
    view = call(bridge, "view", now_s=at(10))["value"]
    assert all(rod["tally"]["hits"] == 0 and rod["line"] is None for rod in view["rods"])


def test_browser_part_runs_with_the_standard_library_alone():
    # What stands on numpy is not shipped to the browser.
    program = (
        "import sys\n"
        "for name in ('numpy', 'scipy', 'django', 'rest_framework'): sys.modules[name] = None\n"
        "import coldwake_core.bridge, pkgutil, coldwake_core\n"
        "for module in pkgutil.walk_packages(coldwake_core.__path__, 'coldwake_core.'):\n"
        "    apart = {'spread', 'column', 'survey', 'lakesim', 'season', 'lessons'}\n"
        "    if not apart & set(module.name.split('.')):\n"
        "        __import__(module.name)\n"
        "print('ok')"
    )
    run = subprocess.run(
        [sys.executable, "-S", "-c", program],
        capture_output=True,
        text=True,
        env={"PYTHONPATH": str(ROOT / "core/src")},
        check=False,
    )
    assert run.stdout.strip() == "ok", run.stderr


def test_current_is_found_from_two_runs():
    # 3.0 through water against 1.2 of current: 1.8 up, 4.2 down (any unit).
    found = call(Bridge(), "current_from_runs", up_mps=1.8, down_mps=4.2, toward_deg=180.0)["value"]
    assert abs(found["speed_mps"] - 1.2) < 1e-9
    assert abs(found["toward_deg"] - 180.0) < 1e-6
    bad = call(Bridge(), "current_from_runs", up_mps="x", down_mps=4.2, toward_deg=180.0)
    assert bad["error"]["field"] == "up_mps"


def test_plan_and_tightest_turns_come_back_as_json():
    bridge = opened()
    plan = call(bridge, "plan", course="starboard", radius_m=40.0)["value"]
    assert [rod["rod_id"] for rod in plan["rods"]] == ["rod-3"]
    assert call(bridge, "tightest")["value"]["port"]["radius_m"] > 0.0
    assert call(bridge, "plan", course="starboard")["error"]["field"] == "radius_m"


def test_what_is_rehearsed_for_the_picture_of_the_memory_is_let_go_again():
    def demo(name: str) -> Any:
        return json.loads((ROOT / "demo" / f"{name}.json").read_text("utf-8"))

    told = {
        "trip": demo("trips/sallow_april"), "outfit": demo("outfits/open_boat_16ft"),
        "chart": demo("charts/sallow_tarn"),
    }
    names = {"demo": json.dumps(told)}
    path = list(sys.path)
    try:
        exec((ROOT / "web/build/picture.py").read_text("utf-8"), names)
    finally:
        gc.unfreeze()
        sys.path[:] = path
    answer = json.loads(names["bridge"].call('{"call": "view", "args": {"now_s": 0}}'))
    assert answer["error"]["message"] == "call ('') must be made after a trip was opened"
    assert "demo" not in names
