"""The bottom ahead, two speeds, turns, the bench, the card, and the end of a trip."""

from __future__ import annotations

import re
from typing import Any

from opening import put_boat
from playwright.sync_api import Page, expect

from running import ApiUser, RunningServer


def test_ledge_ahead_is_called_and_one_tap_clears_it(fish: Page, server: RunningServer):
    put_boat(server.url, along_m=340.0)  # the ledge two minutes ahead
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
    user = ApiUser(server.url)
    trip = user.get("/api/trips/")["trips"][0]["id"]

    def kept(rod_id: str) -> dict[str, Any]:
        rods = user.get(f"/api/trips/{trip}/fish/")["rods"]
        return dict(next(rod for rod in rods if rod["id"] == rod_id)["setup"])

    for _ in range(40):
        if abs(kept("rod-4")["leader_m"] - 0.9144) < 1e-6:
            break
        fish.wait_for_timeout(250)
    four = kept("rod-4")
    assert abs(four["leader_m"] - 0.9144) < 1e-6
    # What is worn there goes on another rod; its line and its place stay.
    before = kept("rod-3")
    fish.get_by_test_id("rig-rod-3").click()
    fish.get_by_test_id("wear-same").click()
    fish.get_by_test_id("same-as-rod-4").click()
    fish.get_by_test_id("rig-it").click()
    expect(fish.get_by_test_id("rig-it")).to_be_disabled()
    for _ in range(40):
        if kept("rod-3")["lure_id"] == four["lure_id"]:
            break
        fish.wait_for_timeout(250)
    three = kept("rod-3")
    for part in ("lure_id", "attractor_id", "leader_m"):
        assert three[part] == four[part]
    for part in ("line_id", "place_id", "setback_m"):
        assert three[part] == before[part]


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
    expect(card.locator("tbody tr")).to_have_count(12)  # six rods, two depths
    pages = re.findall(rb"/Type\s*/Page\b", fish.pdf(format="Letter"))
    assert len(pages) == 1


def test_trip_is_ended_by_two_presses(fish: Page, server: RunningServer):
    user = ApiUser(server.url)
    trip = next(t for t in user.get("/api/trips/")["trips"] if t["name"] == "April morning")
    fish.goto(f"{server.url}/plan")
    button = fish.get_by_test_id(f"end-{trip['id']}")
    button.click()
    expect(button).to_contain_text("Press again")
    button.click()
    expect(button).to_have_count(0)
    after = next(t for t in user.get("/api/trips/")["trips"] if t["id"] == trip["id"])
    assert after["is_ended"] is True
