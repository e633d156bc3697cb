"""Practice as a person fishes it: begun, hurried, ended, and what was hidden."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from running import ApiUser, RunningServer


def test_a_day_is_fished_in_fish_and_shows_what_was_hidden(signed_in: Page, server: RunningServer):
    signed_in.goto(f"{server.url}/practice")
    signed_in.get_by_test_id("practice-seed").fill("12")
    signed_in.get_by_test_id("practice-seed").press("Tab")
    signed_in.get_by_test_id("practice-start").click()
    bar = signed_in.get_by_test_id("practice-bar")
    expect(bar).to_be_visible(timeout=30_000)
    expect(signed_in.get_by_test_id("fish")).to_have_attribute(
        "data-state", "ready", timeout=60_000
    )
    signed_in.get_by_test_id("pace-120").click()
    expect(bar).to_have_attribute("data-minutes", re.compile(r"^(?:[4-9]|\d\d+)$"), timeout=20_000)
    expect(signed_in.get_by_test_id("pace-120")).to_have_attribute("aria-pressed", "true")
    signed_in.get_by_test_id("pace-0").click()
    expect(signed_in.get_by_test_id("pace-0")).to_have_attribute("aria-pressed", "true")
    # The clock at the water stands, and the day's instruments have told of it.
    expect(signed_in.get_by_test_id("fish")).to_contain_text("at the water")
    signed_in.get_by_test_id("practice-end").click()
    signed_in.get_by_test_id("practice-end").click()
    expect(signed_in.get_by_test_id("truth-mine")).to_contain_text("hits", timeout=20_000)
    expect(signed_in.get_by_test_id("score-oracle")).not_to_contain_text("…", timeout=40_000)
    names = [trip["name"] for trip in ApiUser(server.url).get("/api/trips/")["trips"]]
    assert not [name for name in names if name.startswith("Practice")]


def test_a_day_is_dropped_with_the_second_press(signed_in: Page, server: RunningServer):
    user = ApiUser(server.url)
    boat = user.get("/api/trips/")["outfits"][0]["id"]
    day = user.post("/api/practice/", {"outfit_id": boat, "seed": 5})
    signed_in.goto(f"{server.url}/practice")
    drop = signed_in.get_by_test_id(f"practice-drop-{day['trip_id']}")
    drop.click()
    expect(drop).to_contain_text("Press again")
    drop.click()
    expect(drop).to_have_count(0)


def test_the_sonar_drill_says_why(signed_in: Page, server: RunningServer):
    signed_in.goto(f"{server.url}/practice/drill")
    for right in range(2):
        signed_in.locator("[data-test=drill] svg").wait_for()
        signed_in.get_by_test_id("drill-bait").click()
        said = signed_in.get_by_test_id("drill-said")
        expect(said).to_contain_text(re.compile("Right|No:"))
        expect(said).to_contain_text("at this speed")
        expect(signed_in.get_by_test_id("drill-score")).to_contain_text(f"of {right + 1} right")
        signed_in.get_by_test_id("drill-next").click()
        expect(said).to_have_count(0)
