"""Around the main job: no link, no worker, other screens, and nothing fetched from elsewhere."""

from __future__ import annotations

import re
import time
import uuid
from pathlib import Path
from typing import Any

import pytest
from opening import open_demo
from playwright.sync_api import Page, expect

from coldwake_core.chart.grid import GeoPoint, moved
from paths import ROOT
from running import ApiUser, RunningServer


def test_taps_without_a_link_are_kept_here_and_delivered_exactly_once(
    fish: Page, server: RunningServer
):
    fish.context.set_offline(True)
    for _ in range(3):
        fish.get_by_test_id("hit-rod-2").click()
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("5 hits")
    expect(fish.get_by_test_id("link")).to_have_attribute("data-down", "true")
    expect(fish.get_by_test_id("link")).to_contain_text("3 waiting here")
    fish.context.set_offline(False)
    expect(fish.get_by_test_id("link")).to_have_attribute("data-pending", "0", timeout=15_000)
    user = ApiUser(server.url)
    trip = user.get("/api/trips/")["trips"][0]["id"]
    rods = {rod["id"]: rod for rod in user.get(f"/api/trips/{trip}/fish/")["rods"]}
    assert rods["rod-2"]["tally"]["hits"] == 5


def test_after_one_visit_the_app_opens_and_records_without_a_server(
    make_context: Any, server: RunningServer
):
    page = make_context(kept=True).new_page()
    open_demo(page, server.url)
    page.wait_for_function(
        "navigator.serviceWorker.ready.then((r) => r.active?.state === 'activated')", timeout=60_000
    )
    server.stop()
    page.reload()
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(page.get_by_test_id("speed-input")).to_have_value("1.8")
    page.get_by_test_id("hit-rod-4").click()
    expect(page.get_by_test_id("tally-rod-4")).to_contain_text("1 hit")
    server.start()
    expect(page.get_by_test_id("link")).to_have_attribute("data-pending", "0", timeout=20_000)
    user = ApiUser(server.url)
    trip = user.get("/api/trips/")["trips"][0]["id"]
    rods = {rod["id"]: rod for rod in user.get(f"/api/trips/{trip}/fish/")["rods"]}
    assert rods["rod-4"]["tally"]["hits"] == 1


def test_dragging_and_changing_speed_need_no_link(fish: Page):
    fish.context.set_offline(True)
    before = fish.get_by_test_id("lure-rod-5").get_attribute("data-depth")
    fish.get_by_test_id("slower").click()
    expect(fish.get_by_test_id("speed-input")).to_have_value("1.7")
    expect(fish.get_by_test_id("lure-rod-5")).not_to_have_attribute("data-depth", before or "")


def test_what_the_server_refuses_is_said_and_taken_out(fish: Page):
    fish.route(
        "**/events/",
        lambda route: (
            route.fulfill(
                status=422,
                content_type="application/json",
                body='{"code":"invalid_input","field":"events[0].at_s","message":"too late"}',
            )
            if route.request.method == "POST"
            else route.continue_()
        ),
    )
    fish.get_by_test_id("hit-rod-1").click()
    expect(fish.get_by_role("alert").filter(has_text="Not kept")).to_be_visible()
    expect(fish.get_by_test_id("tally-rod-1")).to_contain_text("1 hit")
    expect(fish.get_by_test_id("link")).to_have_attribute("data-pending", "0")


def test_server_answers_while_there_is_no_worker(make_context: Any, server: RunningServer):
    page = make_context().new_page()
    page.route("**/*.wasm", lambda route: route.abort())
    open_demo(page, server.url, ready=False)
    expect(page.locator("[data-state=server]")).to_be_visible(timeout=60_000)
    page.get_by_test_id("slower").click()
    expect(page.get_by_test_id("speed-input")).to_have_value("1.7")
    page.get_by_test_id("hit-rod-6").click()
    expect(page.get_by_test_id("tally-rod-6")).to_contain_text("2 hits")


def test_nothing_is_fetched_from_elsewhere_and_no_error_is_logged(
    make_context: Any, server: RunningServer
):
    page = make_context().new_page()
    asked: list[str] = []
    problems: list[str] = []
    page.on("request", lambda request: asked.append(request.url))
    page.on(
        "console",
        lambda message: problems.append(message.text) if message.type == "error" else None,
    )
    page.on("pageerror", lambda error: problems.append(str(error)))
    open_demo(page, server.url)
    assert asked
    assert [url for url in asked if not url.startswith((server.url, "data:", "blob:"))] == []
    assert problems == []


def test_browser_and_server_give_the_same_numbers(fish: Page, server: RunningServer):
    user = ApiUser(server.url)
    trip = user.get("/api/trips/")["trips"][0]["id"]
    rods = user.get(f"/api/trips/{trip}/fish/")["rods"]
    for rod in rods:
        shown = float(fish.get_by_test_id(f"lure-{rod['id']}").get_attribute("data-depth") or "nan")
        assert shown == pytest.approx(rod["line"]["depth_m"], rel=1e-12)


def test_first_view_s_javascript_is_under_400_kb_compressed(
    make_context: Any, server: RunningServer
):
    page = make_context().new_page()
    scripts: set[str] = set()
    page.on("response", lambda r: scripts.add(r.url) if r.url.endswith(".js") and r.ok else None)
    open_demo(page, server.url)
    sizes = []
    for url in scripts:
        path = ROOT / "web/dist" / url.removeprefix(server.url + "/")
        packed = Path(f"{path}.br")
        sizes.append((packed if packed.exists() else path).stat().st_size)
    assert len(sizes) >= 3
    assert sum(sizes) < 400_000


def test_large_files_travel_compressed_and_are_kept_by_the_browser(
    make_context: Any, server: RunningServer
):
    page = make_context().new_page()
    seen: dict[str, dict[str, str]] = {}
    page.on("response", lambda r: seen.update({r.url.rsplit(".", 1)[-1]: r.headers}))
    open_demo(page, server.url)
    assert seen["wasm"]["content-encoding"] == "br"
    assert "immutable" in seen["wasm"]["cache-control"]
    assert "immutable" in seen["bin"]["cache-control"]


def test_phone_has_no_sideways_scroll_and_large_targets(make_context: Any, server: RunningServer):
    page = make_context(390, 844).new_page()
    open_demo(page, server.url)
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    for name in (
        "hit-rod-1",
        "hooked-rod-1",
        "slower",
        "faster",
        "do-it",
        "not-now",
        "add-mark",
        "undo",
    ):
        box = page.get_by_test_id(name).bounding_box()
        assert box["height"] >= 56, name
        assert box["width"] >= 44, name


@pytest.mark.parametrize("theme", ["glare", "beforeDawn"])
def test_text_on_fish_stands_out_seven_to_one(fish: Page, theme: str):
    if theme == "beforeDawn":
        fish.get_by_test_id("theme").click()
    expect(fish.locator(f".v-theme--{theme}").first).to_be_visible()
    colours = fish.evaluate(
        """() => { const s = getComputedStyle(document.querySelector('.v-application'));
        return Object.fromEntries(
          ['--ink','--ink-2','--frost','--frost-2','--water','--now','--now-ink']
          .map((n) => [n, s.getPropertyValue(n).trim()])) }"""
    )

    def luminance(colour: str) -> float:
        # WCAG 2.1 relative luminance; #fff is short for #ffffff.
        if len(colour) == 4:
            colour = "#" + "".join(2 * digit for digit in colour[1:])
        parts = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
        r, g, b = (p / 12.92 if p <= 0.03928 else ((p + 0.055) / 1.055) ** 2.4 for p in parts)
        return 0.2126 * r + 0.7152 * g + 0.0722 * b

    def contrast(one: str, two: str) -> float:
        light, dark = sorted((luminance(colours[one]), luminance(colours[two])), reverse=True)
        return (light + 0.05) / (dark + 0.05)

    for text, ground in (
        ("--ink", "--frost"),
        ("--ink", "--water"),
        ("--ink-2", "--frost"),
        ("--now", "--frost"),
        ("--now-ink", "--now"),
    ):
        assert contrast(text, ground) >= 7.0, (text, ground, contrast(text, ground))


def test_units_are_switched_by_one_button(fish: Page):
    expect(fish.get_by_test_id("number-rod-3")).to_have_text("14 ft cable")
    fish.get_by_test_id("units").click()
    expect(fish.get_by_test_id("number-rod-3")).to_have_text(re.compile(r"4(\.5)? m cable"))
    expect(fish.get_by_test_id("temperature")).to_contain_text("°C")
    expect(fish.get_by_test_id("speed-input")).to_have_value("2.9")
    fish.get_by_test_id("knots").click()
    expect(fish.get_by_test_id("speed-input")).to_have_value("1.6")


def test_a_user_without_trips_is_told_what_to_do_first(make_context: Any, server: RunningServer):
    import subprocess
    import sys

    subprocess.run(
        [
            sys.executable,
            str(ROOT / "server/manage.py"),
            "shell",
            "-c",
            "from django.contrib.auth import get_user_model as model; "
            "model().objects.create_user('ann', password='a-long-password')",
        ],
        env=server.env,
        check=True,
        capture_output=True,
    )
    page = make_context().new_page()
    page.goto(server.url)
    page.get_by_label("Name").fill("ann")
    page.get_by_label("Password").fill("a-long-password")
    page.get_by_role("button", name="Log in").click()
    expect(page.get_by_test_id("no-trip")).to_contain_text("Start one")


def test_keys_are_listed_under_the_question_mark(fish: Page):
    fish.keyboard.press("?")
    expect(fish.get_by_test_id("key-help")).to_contain_text("fish on")


def test_current_gives_gps_speeds_up_and_down(fish: Page):
    fish.get_by_test_id("current").click()
    fish.get_by_test_id("run-up").fill("1.3")
    fish.get_by_test_id("run-down").fill("2.3")
    fish.get_by_test_id("find-current").click()
    expect(fish.get_by_test_id("current-speed")).to_have_value("0.5")
    fish.get_by_test_id("current-save").click()
    expect(fish.get_by_test_id("gps-up")).to_have_text("1.3 mph")
    expect(fish.get_by_test_id("gps-down")).to_have_text("2.3 mph")
    fish.get_by_test_id("current").click()
    fish.get_by_test_id("current-speed").fill("5")
    fish.get_by_test_id("current-save").click()
    expect(fish.get_by_test_id("current-too-fast")).to_be_visible()


def test_view_from_above_shows_turns_and_how_tight_they_may_be(fish: Page):
    fish.get_by_test_id("switch-view").click()
    view = fish.get_by_test_id("top-view")
    expect(view).to_have_attribute("data-course", "straight")
    expect(fish.get_by_test_id("tightest")).to_contain_text(
        re.compile(r"no tighter than \d+ ft to the left")
    )
    fish.get_by_test_id("course-starboard").click()
    expect(view).to_have_attribute("data-course", "starboard")
    fish.get_by_test_id("radius").fill("20")
    expect(fish.get_by_test_id("turn-warning").filter(has_text="too tight").first).to_be_visible()
    fish.get_by_test_id("switch-view").click()
    expect(fish.get_by_test_id("water-column")).to_be_visible()


def test_depth_seen_teaches_the_line_and_can_be_set_aside(fish: Page):
    fish.get_by_test_id("more-rod-5").click()
    fish.get_by_test_id("calibrate-rod-5").click()
    before = fish.get_by_test_id("calibration-now").inner_text()
    fish.get_by_test_id("depth-seen").fill("40")
    fish.get_by_test_id("calibration-save").click()
    expect(fish.get_by_test_id("readings")).to_contain_text("lure at 40 ft")
    expect(fish.get_by_test_id("calibration-now")).not_to_have_text(before)
    fish.get_by_test_id("set-aside").click()
    expect(fish.get_by_test_id("calibration-now")).to_have_text(before)


def test_what_another_device_records_is_seen_here(
    fish: Page, server: RunningServer, make_context: Any
):
    phone = make_context(390, 844).new_page()
    open_demo(phone, server.url)
    phone.get_by_test_id("hit-rod-2").click()
    expect(phone.get_by_test_id("tally-rod-2")).to_contain_text("3 hits")
    expect(phone.get_by_test_id("link")).to_have_attribute("data-pending", "0")
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("2 hits")
    fish.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("3 hits")
    # And a tap of its own is not lost by it.
    fish.get_by_test_id("hit-rod-2").click()
    fish.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("4 hits")


def before_the_ledge(url: str) -> None:
    """Put the demo's boat anew where its ledge lies two minutes ahead, however late it is."""
    user = ApiUser(url)
    trip = next(t["id"] for t in user.get("/api/trips/")["trips"] if t["name"] == "April morning")
    there = moved(
        GeoPoint(latitude_deg=43.99873, longitude_deg=-115.00175), course_deg=30.0, distance_m=340.0
    )
    fix = {
        "id": str(uuid.uuid4()),
        "at_s": time.time() - user.get(f"/api/trips/{trip}/")["clock_shift_s"],
        "type": "position_fixed",
        "payload": {
            "latitude_deg": there.latitude_deg,
            "longitude_deg": there.longitude_deg,
            "course_deg": 30.0,
        },
    }
    user.post(f"/api/trips/{trip}/events/", {"events": [fix]})


def test_ledge_ahead_is_called_and_one_tap_clears_it(fish: Page, server: RunningServer):
    before_the_ledge(server.url)
    fish.reload()
    fish.locator("[data-state=ready]").wait_for(timeout=60_000)
    call = fish.get_by_test_id("call-rod-4")
    expect(call).to_contain_text("Raise Rod 4")
    before = fish.get_by_test_id("number-rod-4").inner_text()
    fish.get_by_test_id("set-call-rod-4").click()
    expect(fish.get_by_test_id("number-rod-4")).not_to_have_text(before)
    # The ledge is cleared; the shore behind it may be called next, and only "bring in" is left.
    expect(call.filter(has_text="Raise")).to_have_count(0)
    expect(fish.get_by_test_id("bed")).to_have_attribute("data-source", "chart")


def test_two_speeds_at_once_and_the_rod_tip(fish: Page):
    fish.get_by_test_id("more-rod-1").click()
    fish.get_by_test_id("sheet-rod-1").click()
    sheet = fish.get_by_test_id("rod-sheet")
    expect(sheet.get_by_test_id("sheet-number-0")).to_contain_text("ft out")
    expect(sheet.get_by_test_id("sheet-number-1")).to_contain_text("ft out")
    before = fish.get_by_test_id("lure-rod-1").get_attribute("data-depth")
    sheet.get_by_test_id("tip-high").click()
    expect(fish.get_by_test_id("lure-rod-1")).not_to_have_attribute("data-depth", before or "")
    after = float(fish.get_by_test_id("lure-rod-1").get_attribute("data-depth") or 0)
    assert after < float(before or 0)


def test_s_turn_unfolds_and_the_order_is_told(fish: Page):
    fish.get_by_test_id("switch-view").click()
    fish.get_by_test_id("course-s_turn").click()
    above = fish.get_by_test_id("top-view")
    expect(above).to_have_attribute("data-course", "s_turn")
    expect(above.get_by_test_id("moment")).to_be_visible()
    above.get_by_test_id("orders").click()
    expect(above.get_by_test_id("order-out")).to_contain_text("out: Rod 6")


def test_place_that_is_no_number_is_told_and_kept_open(fish: Page):
    fish.get_by_test_id("place").click()
    dialog = fish.get_by_test_id("place-dialog")
    dialog.get_by_test_id("latitude").fill("north")
    dialog.get_by_test_id("longitude").fill("-115")
    dialog.get_by_test_id("course").fill("30")
    dialog.get_by_test_id("place-save").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Latitude")
    dialog.get_by_test_id("latitude").fill("44.0")
    dialog.get_by_test_id("place-save").click()
    expect(dialog).to_have_count(0)


def test_chain_is_changed_on_the_bench_and_rigged(fish: Page, server: RunningServer):
    fish.goto(f"{server.url}/rig")
    fish.get_by_test_id("rig-rod-4").click()
    expect(fish.get_by_test_id("finding-blade-rolls")).to_be_visible()
    leader = fish.get_by_test_id("type-leader_m")
    leader.fill("36")
    leader.blur()
    expect(fish.get_by_test_id("finding-leader-as-sold")).to_be_visible()
    fish.get_by_test_id("rig-it").click()
    expect(fish.get_by_test_id("rig-it")).to_be_disabled()
    trip = ApiUser(server.url).get("/api/trips/")["trips"][0]["id"]

    def leader_kept() -> float:
        rods = ApiUser(server.url).get(f"/api/trips/{trip}/fish/")["rods"]
        return float(next(rod for rod in rods if rod["id"] == "rod-4")["setup"]["leader_m"])

    for _ in range(40):
        if abs(leader_kept() - 0.9144) < 1e-6:
            break
        fish.wait_for_timeout(250)
    assert abs(leader_kept() - 0.9144) < 1e-6


def test_bench_says_what_is_wrong_with_a_length(fish: Page, server: RunningServer):
    fish.goto(f"{server.url}/rig")
    fish.get_by_test_id("rig-rod-4").click()
    leader = fish.get_by_test_id("type-leader_m")
    leader.fill("long")
    leader.blur()
    expect(fish.get_by_test_id("rig-error")).to_contain_text("is no number")
    leader.fill("900")
    leader.blur()
    expect(fish.get_by_test_id("rig-error")).to_be_visible()
    expect(fish.get_by_test_id("rig-it")).to_be_disabled()


def test_rig_card_holds_every_rod_at_two_speeds(fish: Page, server: RunningServer):
    fish.goto(f"{server.url}/rig/card")
    card = fish.get_by_test_id("rig-card")
    expect(card).to_have_attribute("data-state", "ready", timeout=60_000)
    for rod in range(1, 7):
        expect(card).to_contain_text(f"Rod {rod}")
    expect(card).to_contain_text("ft cable")
    expect(card).to_contain_text("colours")


def test_trip_is_ended_by_two_presses(fish: Page, server: RunningServer):
    user = ApiUser(server.url)
    trip = next(t for t in user.get("/api/trips/")["trips"] if t["name"] == "April morning")
    fish.goto(f"{server.url}/trips")
    button = fish.get_by_test_id(f"end-{trip['id']}")
    button.click()
    expect(button).to_contain_text("Press again")
    button.click()
    expect(button).to_have_count(0)
    after = next(t for t in user.get("/api/trips/")["trips"] if t["id"] == trip["id"])
    assert after["is_ended"] is True
