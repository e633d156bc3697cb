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
    expect(bar).to_have_attribute("data-minutes", re.compile(r"^(?:[4-9]|\d\d+)$"))
    expect(signed_in.get_by_test_id("pace-120")).to_have_attribute("aria-pressed", "true")
    signed_in.get_by_test_id("pace-0").click()
    expect(signed_in.get_by_test_id("pace-0")).to_have_attribute("aria-pressed", "true")
    # The clock at the water stands, and the day's instruments have told of it.
    expect(signed_in.get_by_test_id("fish")).to_contain_text("at the water")
    signed_in.get_by_test_id("practice-end").click()
    signed_in.get_by_test_id("practice-end").click()
    expect(signed_in.get_by_test_id("truth-mine")).to_contain_text("hits")
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


def test_a_lesson_asks_says_why_and_goes_on(signed_in: Page, server: RunningServer):
    signed_in.goto(f"{server.url}/practice")
    signed_in.get_by_test_id("lesson-marks").click()
    for asked in range(2):
        signed_in.locator("[data-test=lesson] svg").wait_for()
        expect(signed_in.get_by_test_id("answer")).to_be_disabled()
        signed_in.get_by_test_id("ask-what-bait").check(force=True)
        signed_in.get_by_test_id("answer").click()
        judged = signed_in.get_by_test_id("judged")
        expect(judged).to_contain_text(re.compile("right|no"))
        expect(judged).to_contain_text("On under the middle")
        lessons = ApiUser(server.url).get("/api/practice/lessons/")
        assert next(one["asked"] for one in lessons if one["id"] == "marks") == asked + 1
        signed_in.get_by_test_id("next-task").click()
        expect(judged).to_have_count(0)


def test_half_hours_are_fished_and_acts_are_tapped_in_order(
    signed_in: Page, server: RunningServer
):
    signed_in.goto(f"{server.url}/practice/lessons/one-change")
    for dial, value in (("colour", "pink"), ("depth", "3")):
        for rod in ("rod-1", "rod-2"):
            signed_in.get_by_test_id(f"ask-{rod}-{dial}-{value}").check(force=True)
    signed_in.get_by_test_id("fish-stretch").click()
    expect(signed_in.get_by_test_id("lesson")).to_contain_text("7 half hours left")
    expect(signed_in.get_by_test_id("rod-log")).to_have_attribute(
        "aria-label", re.compile("Rod 1 pink, 10 ft: (?:0:|no hits)")
    )
    signed_in.goto(f"{server.url}/practice/lessons/reset")
    for act in ("look", "net", "rod"):
        signed_in.get_by_test_id(f"ask-order-{act}").click()
    # Tapped again, it and what came after it are taken back.
    signed_in.get_by_test_id("ask-order-net").click()
    for act in ("rod", "clear", "play", "net", "hook", "check", "out", "note"):
        signed_in.get_by_test_id(f"ask-order-{act}").click()
    signed_in.get_by_test_id("answer").click()
    expect(signed_in.get_by_test_id("judged")).to_contain_text("right.")
    expect(signed_in.get_by_test_id("streak")).to_contain_text("1 of 2")
