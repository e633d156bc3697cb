"""Around the main job: no link, no worker, other screens, and nothing fetched from elsewhere."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest
from opening import LAID_UP, choose_quietly, open_demo, put_boat, wait_until
from playwright.sync_api import Page, expect

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
    expect(fish.get_by_test_id("link")).to_have_attribute("data-pending", "0")
    user = ApiUser(server.url)
    trip = user.get("/api/trips/")["trips"][0]["id"]
    rods = {rod["id"]: rod for rod in user.get(f"/api/trips/{trip}/fish/")["rods"]}
    assert rods["rod-2"]["tally"]["hits"] == 5


def test_tap_while_the_core_is_fetching_the_trip_stays_on_the_screen(
    make_context: Any, server: RunningServer
):
    page = make_context().new_page()
    held: list[Any] = []

    def hold(route: Any) -> None:
        if route.request.method == "GET" and not held:
            held.append((route, route.fetch()))  # the trip as it was before the tap
        else:
            route.continue_()

    page.route("**/api/trips/*/events/*", hold)
    page.route("**/api/trips/*/events/", hold)
    open_demo(page, server.url, ready=False)
    for _ in range(200):
        if held:
            break
        page.wait_for_timeout(100)
    page.get_by_test_id("hit-rod-4").click()
    expect(page.get_by_test_id("tally-rod-4")).to_contain_text("1 hit")
    route, answer = held[0]
    route.fulfill(response=answer)
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    page.wait_for_timeout(1500)  # the view by the core replaces the server's
    expect(page.get_by_test_id("tally-rod-4")).to_contain_text("1 hit", timeout=1000)


def wait_until_carried(page: Page) -> None:
    """Wait until the app and what trips are begun from are kept in the browser."""
    wait_until(page, LAID_UP)
    wait_until(
        page,
        """() => new Promise((done) => {
            const asked = indexedDB.open('coldwake')
            asked.onsuccess = () => {
                const all = asked.result.transaction('kits').objectStore('kits').count()
                all.onsuccess = () => { asked.result.close(); done(all.result > 0) }
            }
        })""",
    )


def test_after_one_visit_the_app_opens_and_records_without_a_server(
    make_context: Any, server: RunningServer
):
    page = make_context(kept=True).new_page()
    open_demo(page, server.url)
    wait_until_carried(page)
    # What is kept here never stands in for the page that says how to trust the machine.
    page.goto(f"{server.url}/trust/")
    expect(page.get_by_role("heading", name="This phone and this machine")).to_be_visible()
    page.go_back()
    server.stop()
    page.reload()
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(page.get_by_test_id("speed-input")).to_have_value("1.8")
    page.get_by_test_id("hit-rod-4").click()
    expect(page.get_by_test_id("tally-rod-4")).to_contain_text("1 hit")
    # Another trip, begun, fished and reloaded with nobody to ask.
    page.get_by_role("link", name="Plan").click()
    expect(page.get_by_test_id("alone")).to_contain_text("No server answers")
    page.get_by_test_id("trip-name").fill("Alone")
    page.get_by_label("Sallow Tarn Reservoir").check(force=True)
    page.get_by_label("16 ft open boat").check(force=True)
    page.get_by_test_id("start-trip").click()
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    page.get_by_test_id("more-rod-1").click()
    page.get_by_test_id("type-depth-rod-1").click()
    page.get_by_test_id("number-field").fill("4")
    page.get_by_test_id("number-save").click()
    page.get_by_test_id("hit-rod-1").click()
    # What shows is kept: the page may go in the same moment.
    expect(page.get_by_test_id("tally-rod-1")).to_contain_text("1 hit")
    page.reload()
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(page.get_by_test_id("tally-rod-1")).to_contain_text("1 hit")
    server.start()
    expect(page.get_by_test_id("link")).to_have_attribute("data-pending", "0")
    user = ApiUser(server.url)
    trips = {trip["name"]: trip["id"] for trip in user.get("/api/trips/")["trips"]}
    for name, rod_id in (("April morning", "rod-4"), ("Alone", "rod-1")):
        view = user.get(f"/api/trips/{trips[name]}/fish/")
        rods = {rod["id"]: rod for rod in view["rods"]}
        assert rods[rod_id]["tally"]["hits"] == 1, name


def test_a_server_that_takes_and_never_answers_holds_nothing_up(
    make_context: Any, server: RunningServer
):
    page = make_context(kept=True).new_page()
    open_demo(page, server.url)
    wait_until_carried(page)
    server.hang()
    try:
        page.reload()
        page.locator("[data-state=ready]").wait_for(timeout=30_000)
        page.get_by_test_id("hit-rod-4").click()
        expect(page.get_by_test_id("tally-rod-4")).to_contain_text("1 hit")
        page.get_by_role("link", name="Plan").click()
        expect(page.get_by_test_id("plan")).to_contain_text("No server answers")
    finally:
        server.go_on()
    page.get_by_role("link", name="Fish").click()
    expect(page.get_by_test_id("link")).to_have_attribute("data-pending", "0", timeout=90_000)


def test_dragging_and_changing_speed_need_no_link(fish: Page):
    fish.context.set_offline(True)
    before = fish.get_by_test_id("lure-rod-5").get_attribute("data-depth")
    fish.get_by_test_id("slower").click()
    expect(fish.get_by_test_id("speed-input")).to_have_value("1.7")
    expect(fish.get_by_test_id("lure-rod-5")).not_to_have_attribute("data-depth", before or "")


def test_server_answers_while_there_is_no_worker(make_context: Any, server: RunningServer):
    page = make_context().new_page()
    page.route("**/*.wasm", lambda route: route.abort())
    page.clock.install()
    open_demo(page, server.url, ready=False)
    page.locator("[data-state=starting]").wait_for()
    page.wait_for_timeout(2000)
    # The runtime hangs without a word: half a minute is waited for it, and no longer.
    page.clock.fast_forward(31_000)
    expect(page.locator("[data-state=server]")).to_be_visible()
    page.clock.resume()
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

    def large(*names: str) -> None:
        for name in names:
            box = page.get_by_test_id(name).bounding_box()
            assert box["height"] >= 56, name
            assert box["width"] >= 44, name

    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert page.evaluate("document.documentElement.scrollHeight") <= 844
    large("slower", "faster", "add-mark", "undo", *(f"hit-rod-{i}" for i in range(1, 7)))
    page.get_by_test_id("strip-rod-1").click()
    large("hooked-rod-1", "swap-lure", "bait-rod-1", "in-rod-1")
    page.get_by_test_id("strip-rod-1").click()
    page.get_by_test_id("open-move").click()
    large("do-it", "not-now")


@pytest.mark.parametrize("theme", ["glare", "beforeDawn"])
def test_text_on_fish_stands_out_seven_to_one(fish: Page, theme: str):
    if theme == "beforeDawn":
        choose_quietly(fish, "theme")
    expect(fish.locator(f".v-theme--{theme}").first).to_be_visible()
    colours = fish.evaluate(
        """() => { const probe = document.querySelector('.v-application')
            .appendChild(document.createElement('i'));
        probe.style.transition = 'none'
        return Object.fromEntries(
          ['--ink','--ink-2','--frost','--frost-2','--water','--now','--now-ink'].map((name) => {
            probe.style.color = `var(${name})`
            return [name, getComputedStyle(probe).color]
          })) }"""
    )

    def luminance(colour: str) -> float:
        # WCAG 2.1 relative luminance.
        parts = [int(part) / 255 for part in re.findall(r"\d+", colour)[:3]]
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
    choose_quietly(fish, "units")
    expect(fish.get_by_test_id("number-rod-3")).to_have_text(re.compile(r"4(\.5)? m cable"))
    expect(fish.get_by_test_id("temperature")).to_contain_text("°C")
    expect(fish.get_by_test_id("speed-input")).to_have_value("2.9")
    choose_quietly(fish, "knots")
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
    page.get_by_test_id("name").fill("ann")
    page.get_by_test_id("password").fill("a-long-password")
    page.get_by_role("button", name="Log in").click()
    expect(page.get_by_test_id("no-trip")).to_contain_text("Start one")
    page.get_by_test_id("no-trip").get_by_role("button").click()
    expect(page.get_by_test_id("set-up-first")).to_contain_text("A boat with its rods")


def test_keys_are_listed_under_the_question_mark(fish: Page):
    fish.keyboard.press("?")
    expect(fish.get_by_test_id("key-help")).to_contain_text("fish on")


def test_a_number_is_typed_at_once_in_the_place_of_what_stands_there(fish: Page):
    fish.get_by_test_id("temperature").click()
    expect(fish.get_by_test_id("number-field")).to_be_focused()
    fish.keyboard.type("53.5")
    fish.keyboard.press("Enter")
    expect(fish.get_by_test_id("number-dialog")).to_be_hidden()
    expect(fish.get_by_test_id("temperature")).to_contain_text("53.5")


def test_a_school_is_cast_to_and_counted_apart_from_the_rods(fish: Page):
    before = fish.get_by_test_id("tally-rod-1").inner_text()
    fish.get_by_test_id("note").click()
    fish.get_by_test_id("turn-port").click()
    fish.get_by_test_id("note").click()
    expect(fish.get_by_test_id("turn-over")).to_be_enabled()
    fish.get_by_test_id("to-cast").click()
    fish.get_by_test_id("cast-count").fill("soon")
    fish.get_by_test_id("cast-begin").click()
    expect(fish.get_by_test_id("cast-sheet").get_by_role("alert")).to_contain_text("“soon”")
    fish.get_by_test_id("cast-count").fill("6")
    fish.get_by_test_id("cast-begin").click()
    expect(fish.get_by_test_id("cast-now")).to_contain_text("count 6 (about 6 ft), slow")
    fish.get_by_test_id("cast-hit").click()
    fish.get_by_test_id("cast-hooked").click()
    fish.get_by_test_id("cast-length").fill("24")
    fish.get_by_test_id("cast-species-striper").check(force=True)
    fish.get_by_test_id("cast-released").click()
    expect(fish.get_by_test_id("cast-now")).to_contain_text("1 hit, 1 on, 1 in")
    expect(fish.get_by_test_id("tally-rod-1")).to_have_text(before)
    fish.keyboard.press("Escape")
    # While it lasts, one press leads back to it.
    fish.get_by_test_id("note").click()
    fish.get_by_test_id("cast-end").click()
    expect(fish.get_by_test_id("note")).to_have_text("Note")


def test_current_gives_gps_speeds_up_and_down(fish: Page):
    fish.keyboard.press("c")
    fish.get_by_test_id("run-up").fill("1.3")
    fish.get_by_test_id("run-down").fill("2.3")
    fish.get_by_test_id("find-current").click()
    expect(fish.get_by_test_id("current-speed")).to_have_value("0.5")
    fish.get_by_test_id("current-save").click()
    expect(fish.get_by_test_id("gps-up")).to_have_text("1.3 mph")
    expect(fish.get_by_test_id("gps-down")).to_have_text("2.3 mph")
    # What GPS shows up the current, which flows south here, is turned into what the lures feel.
    fish.get_by_test_id("gps").click()
    fish.get_by_test_id("gps-dialog").get_by_test_id("point-S").click()
    fish.get_by_test_id("gps-speed").fill("2.6")
    expect(fish.get_by_test_id("gps-found")).to_contain_text("2.1 mph")
    fish.get_by_test_id("gps-set").click()
    expect(fish.get_by_test_id("speed-input")).to_have_value("2.1")
    fish.get_by_test_id("gps").click()
    fish.get_by_test_id("to-current").click()
    fish.get_by_test_id("current-speed").fill("5")
    fish.get_by_test_id("current-save").click()
    expect(fish.get_by_test_id("current-too-fast")).to_be_visible()


def test_wind_is_noted_with_drift_and_the_own_look(make_context: Any, server: RunningServer):
    put_boat(server.url, along_m=0.0)  # a course told long ago would be held no more
    fish = make_context().new_page()
    open_demo(fish, server.url)
    fish.keyboard.press("a")
    dialog = fish.get_by_test_id("wind-dialog")
    dialog.get_by_test_id("point-W").click()
    fish.get_by_test_id("wind-drift").fill("0.5")
    fish.get_by_test_id("wind-into").fill("fast")
    fish.get_by_test_id("wind-save").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Into the wind: “fast” is no number")
    fish.get_by_test_id("wind-into").fill("1.2")
    fish.get_by_test_id("wind-with").fill("")
    fish.get_by_test_id("wind-save").click()
    expect(dialog.get_by_role("alert")).to_contain_text("a look takes both ways")
    fish.get_by_test_id("wind-with").fill("0.9")
    fish.get_by_test_id("wind-save").click()
    # 1.8 through the water: 0.3 more into the wind, as it was seen.
    expect(fish.get_by_test_id("gps-into")).to_have_text("2.1 mph")
    expect(fish.get_by_test_id("gps-with")).to_have_text("1.8 mph")
    fish.get_by_test_id("switch-view").click()
    # On the course of 30 degrees the wind comes over the port side: 0.5 mph of drift against 1.8,
    # 0.433 of it across and 0.25 with the boat. The hull gives 1.61, so atan(0.433 / 1.55) = 16.
    expect(fish.get_by_test_id("top-view")).to_contain_text("lines stream 16° to port")


def test_view_from_above_shows_turns_and_how_tight_they_may_be(
    make_context: Any, server: RunningServer
):
    put_boat(server.url, along_m=0.0)
    fish = make_context().new_page()
    open_demo(fish, server.url)
    fish.get_by_test_id("switch-view").click()
    view = fish.get_by_test_id("top-view")
    expect(view).to_have_attribute("data-course", "straight")
    expect(fish.get_by_test_id("tightest")).to_contain_text(
        re.compile(r"to the left no tighter than \d+ ft \(.+\); to the right")
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
    phone.get_by_test_id("strip-rod-2").click()
    expect(phone.get_by_test_id("rod-panel")).to_contain_text("3 hits")
    expect(phone.get_by_test_id("link")).to_have_attribute("data-pending", "0")
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("2 hits")
    fish.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("3 hits")
    # And a tap of its own is not lost by it.
    fish.get_by_test_id("hit-rod-2").click()
    fish.evaluate("window.dispatchEvent(new Event('focus'))")
    expect(fish.get_by_test_id("tally-rod-2")).to_contain_text("4 hits")


def test_the_boat_is_followed_by_the_phone_and_only_what_is_new_is_noted(
    make_context: Any, server: RunningServer
):
    context = make_context(390, 844)
    context.grant_permissions(["geolocation"], origin=server.url)
    context.set_geolocation({"latitude": 43.9990, "longitude": -115.0020, "accuracy": 5})
    page = context.new_page()
    open_demo(page, server.url)
    page.get_by_test_id("more-notes").click()
    page.get_by_test_id("place").click()
    page.get_by_test_id("follow").click()
    expect(page.get_by_test_id("following")).to_contain_text("Followed while this page is open")
    # Fifty metres north in five steps: the course is the way that was made.
    for step in range(1, 6):
        page.wait_for_timeout(1100)
        context.set_geolocation(
            {"latitude": 43.9990 + 0.00009 * step, "longitude": -115.0020, "accuracy": 5}
        )
    user = ApiUser(server.url)
    trip = user.get("/api/trips/")["trips"][0]["id"]
    fixes: list[Any] = []
    for _ in range(50):
        events = user.get(f"/api/trips/{trip}/events/?after=0")["events"]
        fixes = [e["payload"] for e in events if e["type"] == "position_fixed"]
        if fixes and 43.9990 <= fixes[-1]["latitude_deg"] < 44.0:
            break
        page.wait_for_timeout(200)
    here = [fix for fix in fixes if fix["longitude_deg"] == -115.0020]
    assert 1 <= len(here) <= 4
    assert here[0]["course_deg"] in (0.0, 360.0)
    page.get_by_test_id("follow").click()
    expect(page.get_by_test_id("follow")).to_contain_text("Follow this phone")
