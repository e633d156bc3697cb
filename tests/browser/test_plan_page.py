"""Plan as a person uses it: the day is drawn over, everything follows, a trip takes it along."""

from __future__ import annotations

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


def test_wind_that_is_drawn_keeps_the_morning_s_method(fish: Page, server: RunningServer):
    planned(fish, server)
    expect(fish.get_by_test_id("weather-trouble")).to_contain_text("type the weather")
    expect(fish.get_by_test_id("phase").nth(1)).to_contain_text("Slow down")
    draw(fish, "wind_mps", 0.2)
    expect(fish.get_by_test_id("phase")).to_have_count(1)
    expect(fish.get_by_test_id("phase")).to_contain_text("Cover water")
    expect(fish.get_by_test_id("weather-words")).to_contain_text("drawn over")
    draw(fish, "wind_mps", 0.85)
    expect(fish.get_by_test_id("phase").nth(1)).to_contain_text("Slow down")
    fish.get_by_test_id("cold-stay_slow").check(force=True)
    expect(fish.get_by_test_id("phase").first).to_contain_text("Stay slow")


def test_day_is_drawn_by_keys_and_read_in_the_reader_s_units(fish: Page, server: RunningServer):
    planned(fish, server)
    strip = fish.get_by_test_id("draw-wind_mps")
    strip.focus()
    before = float(strip.get_attribute("aria-valuenow") or 0)
    for _ in range(4):
        fish.keyboard.press("ArrowUp")
    expect(strip).to_have_attribute("aria-valuenow", f"{before + 1.0:g}")
    fish.keyboard.press("ArrowRight")
    expect(fish.get_by_test_id("seen-hour")).to_contain_text("13:00")
    expect(fish.get_by_test_id("seen-hour")).to_contain_text("mph")
    expect(fish.get_by_test_id("plan")).to_have_attribute("data-busy", "false")
    choose_quietly(fish, "units")
    expect(fish.get_by_test_id("seen-hour")).to_contain_text("km/h")


def test_trip_takes_the_day_along_and_fish_shows_it_behind(fish: Page, server: RunningServer):
    planned(fish, server)
    fish.get_by_test_id("trip-name").fill("Planned")
    fish.get_by_test_id("start-trip").click()
    fish.wait_for_selector("[data-test=fish]")
    trips = ApiUser(server.url).get("/api/trips/")["trips"]
    trip = next(t for t in trips if t["name"] == "Planned")
    user = ApiUser(server.url)
    assert user.get(f"/api/trips/{trip['id']}/")["plan"]["start_words"]
    assert len(user.get("/api/plans/")) >= 1


def test_method_of_the_hour_is_the_plan_s_phase(fish: Page):
    expect(fish.get_by_test_id("method-name")).to_contain_text("Slow down")
    expect(fish.get_by_test_id("method-plan")).to_contain_text("ahead of the plan")
    expect(fish.get_by_test_id("ribbon-planned")).to_have_count(1)
