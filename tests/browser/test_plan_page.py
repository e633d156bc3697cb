"""Plan as a person uses it: the day is drawn over, everything follows, a trip takes it along."""

from __future__ import annotations

import re
from pathlib import Path

from opening import choose_quietly
from playwright.sync_api import Page, expect

from running import ApiUser, RunningServer


def planned(page: Page, server: RunningServer) -> None:
    page.goto(f"{server.url}/plan")
    page.wait_for_selector("[data-test=plan][data-state=ready]", timeout=30_000)


def draw(page: Page, what: str, share_down: float) -> None:
    """Draw a level line over the whole strip, from its left to its right."""
    box = page.locator(f"[data-test=draw-{what}]").bounding_box()
    assert box is not None
    y = box["y"] + share_down * box["height"]
    page.mouse.move(box["x"] + 2, y)
    page.mouse.down()
    for step in range(1, 11):
        page.mouse.move(box["x"] + 2 + step / 10 * (box["width"] - 4), y)
    page.mouse.up()


def test_wind_that_is_drawn_keeps_the_morning_s_method(signed_in: Page, server: RunningServer):
    planned(signed_in, server)
    expect(signed_in.get_by_test_id("weather-trouble")).to_contain_text("type the weather")
    expect(signed_in.get_by_test_id("phase").nth(1)).to_contain_text("Slow down")
    draw(signed_in, "wind_mps", 0.2)
    expect(signed_in.get_by_test_id("phase")).to_have_count(1)
    expect(signed_in.get_by_test_id("phase")).to_contain_text("Cover water")
    expect(signed_in.get_by_test_id("weather-words")).to_contain_text("drawn over")
    draw(signed_in, "wind_mps", 0.85)
    expect(signed_in.get_by_test_id("phase").nth(1)).to_contain_text("Slow down")
    signed_in.get_by_test_id("cold-stay_slow").check(force=True)
    expect(signed_in.get_by_test_id("phase").first).to_contain_text("Stay slow")


def test_day_is_drawn_by_keys_and_read_in_the_reader_s_units(
    signed_in: Page, server: RunningServer
):
    planned(signed_in, server)
    strip = signed_in.get_by_test_id("draw-wind_mps")
    strip.focus()
    before = float(strip.get_attribute("aria-valuenow") or 0)
    for _ in range(4):
        signed_in.keyboard.press("ArrowUp")
    expect(strip).to_have_attribute("aria-valuenow", f"{before + 1.0:g}")
    signed_in.keyboard.press("ArrowRight")
    expect(signed_in.get_by_test_id("seen-hour")).to_contain_text("13:00")
    expect(signed_in.get_by_test_id("seen-hour")).to_contain_text("mph")
    expect(signed_in.get_by_test_id("plan")).to_have_attribute("data-busy", "false")
    choose_quietly(signed_in, "units")
    expect(signed_in.get_by_test_id("seen-hour")).to_contain_text("km/h")


def test_trip_takes_the_day_along_and_fish_shows_it_behind(signed_in: Page, server: RunningServer):
    planned(signed_in, server)
    signed_in.get_by_test_id("trip-name").fill("Planned")
    signed_in.get_by_test_id("start-trip").click()
    signed_in.wait_for_selector("[data-test=fish]")
    trips = ApiUser(server.url).get("/api/trips/")["trips"]
    trip = next(t for t in trips if t["name"] == "Planned")
    user = ApiUser(server.url)
    assert user.get(f"/api/trips/{trip['id']}/")["plan"]["start_words"]
    assert len(user.get("/api/plans/")) >= 1


def test_day_of_the_evening_is_kept_opened_again_and_given_to_the_trip(
    signed_in: Page, server: RunningServer
):
    planned(signed_in, server)
    before = signed_in.get_by_test_id("seen-hour").text_content() or ""
    signed_in.get_by_test_id("plan-surface").fill("46")
    signed_in.get_by_test_id("plan-surface").press("Enter")
    expect(signed_in.get_by_test_id("seen-hour")).not_to_have_text(before)
    colder = signed_in.get_by_test_id("seen-hour").text_content() or ""
    signed_in.get_by_test_id("keep-day").click()
    expect(signed_in.get_by_role("status").filter(has_text="Kept.")).to_be_visible()
    mine = next(
        p["id"] for p in ApiUser(server.url).get("/api/plans/")
        if ApiUser(server.url).get(f"/api/plans/{p['id']}/")["asked"]["surface_degc"] < 8.0
    )
    planned(signed_in, server)
    expect(signed_in.get_by_test_id("plan-surface")).not_to_have_value("46")
    signed_in.get_by_test_id(f"open-plan-{mine}").click()
    expect(signed_in.get_by_test_id("plan-surface")).to_have_value("46")
    expect(signed_in.get_by_test_id("seen-hour")).to_have_text(colder)
    signed_in.get_by_test_id("give-day").click()
    expect(signed_in).to_have_url(re.compile("/fish"))
    trip = next(
        t for t in ApiUser(server.url).get("/api/trips/")["trips"] if t["name"] == "April morning"
    )
    events = ApiUser(server.url).get(f"/api/trips/{trip['id']}/events/")["events"]
    (given,) = [e for e in events if e["type"] == "day_planned"]
    assert given["payload"]["start_words"].startswith("taken as mixed")
    # It goes with the second press.
    planned(signed_in, server)
    drop = signed_in.get_by_test_id(f"drop-plan-{mine}")
    expect(drop).to_have_count(1)
    drop.click()
    drop.click()
    expect(drop).to_have_count(0)


def test_method_of_the_hour_is_the_plan_s_phase(fish: Page):
    expect(fish.get_by_test_id("method-name")).to_contain_text("Slow down")
    expect(fish.get_by_test_id("method-plan")).to_contain_text("ahead of the plan")
    expect(fish.get_by_test_id("ribbon-planned")).to_have_count(1)


def test_legs_follow_a_contour_and_go_out_as_gpx(signed_in: Page, server: RunningServer):
    planned(signed_in, server)
    chart = signed_in.locator("[data-test=legs] [data-test=chart]")
    expect(chart).not_to_have_attribute("data-legs", "0")
    first = signed_in.get_by_test_id("leg").first.inner_text()
    signed_in.get_by_test_id("leg-depth").fill("60")
    expect(signed_in.get_by_test_id("leg").first).not_to_have_text(first)
    expect(signed_in.get_by_test_id("leg").first).to_contain_text("60")
    with signed_in.expect_download() as saved:
        signed_in.get_by_test_id("legs-gpx").click()
    assert "<rte>" in saved.value.path().read_text("utf-8")
    signed_in.get_by_test_id("leg-depth").fill("200")
    expect(signed_in.locator("[data-test=legs]")).to_contain_text("contour has 150 m")


def test_box_is_weighed_for_the_phase_and_told_as_old_when_the_day_changes(
    signed_in: Page, server: RunningServer
):
    planned(signed_in, server)
    signed_in.get_by_test_id("weigh").click()
    row = signed_in.get_by_test_id("planned-rod-5")
    expect(row).to_contain_text("ft", timeout=40_000)
    expect(signed_in.get_by_test_id("weigh")).to_have_count(0)
    signed_in.get_by_test_id("plan-surface").fill("50")
    signed_in.get_by_test_id("plan-surface").press("Tab")
    expect(signed_in.get_by_test_id("plan-opening")).to_contain_text("for the day as it was")
    expect(signed_in.get_by_test_id("weigh")).to_be_visible()


def test_a_day_is_opened_with_what_earned_hits_in_one_tap(signed_in: Page, server: RunningServer):
    planned(signed_in, server)
    # A day like those of the demo, whatever today is.
    signed_in.get_by_test_id("plan-day").fill("2026-04-15")
    signed_in.get_by_test_id("take-begin").click()
    opening = signed_in.get_by_test_id("plan-opening")
    expect(opening).to_have_attribute("data-busy", "false", timeout=30_000)
    expect(opening).to_contain_text("begun with what earned hits on days like it")
    expect(opening.locator("tbody tr")).not_to_have_count(0)


def test_profile_of_a_file_is_there_to_be_changed(
    signed_in: Page, server: RunningServer, tmp_path: Path
):
    planned(signed_in, server)
    signed_in.get_by_test_id("more-wishes").click()
    file = tmp_path / "probe.csv"
    file.write_text("depth_ft,temperature_f,oxygen_mgl\n0,warm,9\n")
    with signed_in.expect_file_chooser() as chooser:
        signed_in.get_by_test_id("profile-file").click()
    chooser.value.set_files(file)
    expect(signed_in.get_by_role("alert")).to_contain_text("Row 2, temperature")
    file.write_text("depth_ft,temperature_f,oxygen_mgl\n0,50,9\n40,44,3\n")
    with signed_in.expect_file_chooser() as chooser:
        signed_in.get_by_test_id("profile-file").click()
    chooser.value.set_files(file)
    expect(signed_in.get_by_test_id("plan-profile")).to_have_value("0 50 9\n40 44 3")


def test_somebody_ashore_is_told(signed_in: Page, server: RunningServer):
    planned(signed_in, server)
    expect(signed_in.get_by_test_id("turn-back")).to_contain_text("for the dark")
    signed_in.get_by_test_id("to-float-plan").click()
    signed_in.get_by_test_id("float-write").click()
    expect(signed_in.get_by_test_id("float-plan")).to_contain_text("who")
    signed_in.get_by_test_id("float-who").fill("Two of us")
    signed_in.get_by_test_id("float-call").fill("Ash, 555 0100")
    signed_in.get_by_test_id("float-write").click()
    expect(signed_in.get_by_test_id("float-text")).to_contain_text("555 0100")
    with signed_in.expect_download() as saved:
        signed_in.get_by_test_id("float-ics").click()
    assert "BEGIN:VALARM" in saved.value.path().read_text("utf-8")


def open_water(page: Page, server: RunningServer, name: str) -> None:
    waters = ApiUser(server.url).get("/api/waters/")
    key = next(w["id"] for w in waters if w["name"].startswith(name))
    page.goto(f"{server.url}/waters/{key}")
    page.wait_for_selector("[data-test=water][data-state=ready]")


def test_soundings_are_looked_at_then_taken(signed_in: Page, server: RunningServer):
    open_water(signed_in, server, "Lower")
    # Twice as deep by mistake: feet that are said to be metres.
    rows = [
        f"{38.4955 + 0.0004 * r:.5f},{-121.501 + 0.00008 * c:.5f},{2 + c}"
        for r in range(22) for c in range(20)
    ]
    signed_in.get_by_test_id("survey-name").fill("June, low water")
    signed_in.get_by_test_id("survey-unit-m").check(force=True)
    signed_in.get_by_test_id("survey-text").fill("\n".join(["latitude,longitude,depth", *rows]))
    signed_in.get_by_test_id("survey-look").click()
    expect(signed_in.get_by_test_id("survey-looked")).to_contain_text("440")
    expect(signed_in.get_by_test_id("odd-feet")).to_be_visible()
    signed_in.get_by_test_id("survey-unit-ft").check(force=True)
    signed_in.get_by_test_id("survey-look").click()
    expect(signed_in.get_by_test_id("odd-feet")).to_have_count(0)
    signed_in.get_by_test_id("survey-take").click()
    expect(signed_in.locator("[data-test=water]")).to_contain_text("June, low water: 440 soundings")


def test_closed_water_is_placed_on_the_chart_with_its_rule(signed_in: Page, server: RunningServer):
    open_water(signed_in, server, "Sallow")
    signed_in.get_by_test_id("feature-add").click()
    signed_in.get_by_test_id("feature-kind-closed_ring").check(force=True)
    signed_in.get_by_test_id("feature-name").fill("Dam")
    signed_in.get_by_test_id("feature-radius").fill("300")
    signed_in.locator("[data-test=chart]").click(position={"x": 300, "y": 500})
    expect(signed_in.get_by_test_id("feature-corners")).to_contain_text("Placed")
    signed_in.get_by_test_id("feature-keep").click()
    # Without its rule it is not taken, and nothing of it is lost.
    expect(signed_in.get_by_role("alert")).to_contain_text("rule")
    expect(signed_in.get_by_test_id("feature-name")).to_have_value("Dam")
    signed_in.get_by_test_id("feature-rule").fill("no boats")
    signed_in.get_by_test_id("feature-origin").fill("a sign at the dam")
    signed_in.get_by_test_id("feature-day").fill("2026-04-01")
    signed_in.get_by_test_id("feature-keep").click()
    expect(signed_in.locator("[data-test=chart]")).to_contain_text("closed: Dam")


def test_a_slower_boat_draws_a_longer_mark(signed_in: Page, server: RunningServer):
    signed_in.goto(f"{server.url}/practice/sonar")
    read = signed_in.get_by_test_id("sonar-read")
    expect(read).to_contain_text("an arch")
    signed_in.get_by_test_id("sonar-speed_mps").fill("0.2")
    expect(read).to_contain_text("a long worm")
    signed_in.get_by_test_id("sonar-speed_mps").fill("18")
    expect(read).to_contain_text("a dash")
