"""The six acts of the main job, in a real browser, and what is left of them afterwards."""

from __future__ import annotations

import re
from typing import Any

from opening import open_demo
from playwright.sync_api import Page, expect

from running import RunningServer


def depth(page: Page, rod: str) -> float:
    """Depth of a lure as the picture has it, m."""
    return float(page.get_by_test_id(f"lure-{rod}").get_attribute("data-depth") or "nan")


def test_1_speed_moves_every_line_and_flags_what_does_not_work(fish: Page):
    before = {rod: depth(fish, rod) for rod in ("rod-2", "rod-5")}
    expect(fish.get_by_test_id("odd-rod-4")).to_contain_text("too fast")
    field = fish.get_by_test_id("speed-input")
    field.fill("1.5")
    field.press("Enter")
    expect(fish.get_by_test_id("odd-rod-4")).to_have_count(0)
    for rod, old in before.items():
        assert depth(fish, rod) > old, "weighted lines sink when the boat slows"
    fish.get_by_test_id("faster").click()
    expect(field).to_have_value("1.6")
    fish.keyboard.press("Escape")
    fish.locator("h1").click()
    fish.keyboard.press("-")
    expect(field).to_have_value("1.5")
    # The slider shows every line at a speed before it is kept.
    slider = fish.get_by_test_id("speed-slider")
    box = slider.bounding_box()
    fish.mouse.move(box["x"] + box["width"] * 0.36, box["y"] + 20)
    fish.mouse.down()
    fish.mouse.move(box["x"] + box["width"] * 0.8, box["y"] + 20, steps=6)
    expect(fish.get_by_test_id("odd-rod-2")).to_contain_text("too fast")
    fish.mouse.up()
    expect(field).not_to_have_value("1.5")


def test_1_nonsense_speeds_are_refused_in_words_and_nothing_is_lost(fish: Page):
    field = fish.get_by_test_id("speed-input")
    for typed, said in (
        ("abc", "no number"),
        ("0", "Speed: set 0.1 mph to 10.1 mph"),
        ("-2", "Speed: set"),
        ("40", "Speed: set"),
    ):
        field.fill(typed)
        field.press("Enter")
        expect(fish.get_by_role("alert").filter(has_text=said)).to_be_visible()
    fish.reload()
    fish.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(fish.get_by_test_id("speed-input")).to_have_value("1.8")


def test_2_dragging_a_lure_gives_the_number_and_keeps_it(fish: Page):
    lure = fish.get_by_test_id("lure-rod-4").locator("circle[fill=transparent]")
    box = lure.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    fish.mouse.move(x, y)
    fish.mouse.down()
    fish.mouse.move(x, y + 20, steps=4)
    readout = fish.get_by_test_id("drag-readout")
    expect(readout).to_contain_text(re.compile(r"\d+ ft cable"))
    expect(readout).to_contain_text(re.compile(r"\d+ ft ± \d+"))
    shown = readout.locator(".figure").inner_text()
    fish.mouse.move(x, y + 60, steps=4)
    expect(readout.locator(".figure")).not_to_have_text(shown)
    fish.mouse.up()
    expect(readout).to_have_count(0)
    number = fish.get_by_test_id("number-rod-4")
    expect(number).not_to_have_text("30 ft cable")
    kept = number.inner_text()
    expect(fish.get_by_test_id("link")).to_have_attribute("data-pending", "0")
    fish.reload()
    fish.locator("[data-test=water-column] svg").wait_for()
    expect(fish.get_by_test_id("number-rod-4")).to_have_text(kept)


def test_2_typed_depths_and_depths_out_of_reach(fish: Page):
    def type_depth(rod: str, feet: str) -> None:
        fish.get_by_test_id(f"more-{rod}").click()
        fish.get_by_test_id(f"type-depth-{rod}").click()
        fish.get_by_test_id("number-field").fill(feet)
        fish.get_by_test_id("number-save").click()

    type_depth("rod-2", "20")
    expect(fish.get_by_test_id("depth-rod-2")).to_contain_text("20 ft")
    expect(fish.get_by_test_id("number-rod-2")).to_contain_text("colours")
    type_depth("rod-1", "50")
    expect(fish.get_by_test_id("number-error")).to_contain_text(re.compile(r"deepest is \d+ ft"))
    fish.keyboard.press("Escape")
    expect(fish.get_by_test_id("number-dialog")).to_be_hidden()
    type_depth("rod-3", "90")
    expect(fish.get_by_test_id("number-error")).to_contain_text("at most 62 ft, the bottom")
    fish.get_by_test_id("number-field").fill("deep")
    fish.get_by_test_id("number-save").click()
    expect(fish.get_by_test_id("number-error")).to_contain_text("no number")


def test_2_a_lure_can_be_moved_with_the_keyboard_alone(fish: Page):
    lure = fish.get_by_test_id("lure-rod-3")
    lure.focus()
    for _ in range(4):
        lure.press("ArrowDown")
    expect(fish.get_by_test_id("drag-readout")).to_be_visible()
    before = fish.get_by_test_id("number-rod-3").inner_text()
    lure.press("Enter")
    expect(fish.get_by_test_id("number-rod-3")).not_to_have_text(before)


def test_2_column_answers_while_a_depth_is_typed(fish: Page):
    lure = fish.get_by_test_id("lure-rod-3")
    before = float(lure.get_attribute("data-depth") or 0.0)
    fish.get_by_test_id("more-rod-3").click()
    fish.get_by_test_id("type-depth-rod-3").click()
    fish.get_by_test_id("number-field").fill("40")
    # 40 ft is 12.19 m: the lure goes there, its number stands beside, and nothing is kept yet.
    expect(lure).to_have_attribute("data-depth", re.compile(r"^12\.[12]"))
    expect(fish.get_by_test_id("number-dialog")).to_contain_text("ft cable")
    box = fish.get_by_test_id("number-dialog").bounding_box()
    column = lure.bounding_box()
    assert box is not None
    assert column is not None
    assert column["x"] + column["width"] < box["x"]
    fish.keyboard.press("Escape")
    expect(lure).to_have_attribute("data-depth", str(before))


def test_3_a_mark_is_added_and_fished_from_just_above(fish: Page):
    fish.get_by_test_id("add-mark").click()
    fish.get_by_test_id("number-field").fill("42")
    fish.get_by_test_id("number-save").click()
    sheet = fish.get_by_test_id("mark-sheet")
    expect(sheet).to_contain_text("runs at 40 ft")
    fish.get_by_test_id("fish-mark-rod-4").click()
    expect(fish.get_by_test_id("depth-rod-4")).to_contain_text("40 ft")
    expect(fish.get_by_role("button", name="Mark at 42 ft, 1 fish")).to_be_visible()


def test_4_taps_change_the_tally_and_the_soak_clock_and_undo_takes_back(fish: Page):
    tally = fish.get_by_test_id("tally-rod-3")
    expect(tally).to_contain_text("1 hit")
    fish.get_by_test_id("hit-rod-3").click()
    expect(tally).to_contain_text("2 hits")
    fish.get_by_test_id("undo").click()
    expect(tally).to_contain_text("1 hit ")
    fish.get_by_test_id("hooked-rod-3").click()
    expect(fish.get_by_test_id("number-rod-3")).to_have_text("fish on")
    fish.get_by_test_id("landed-rod-3").click()
    fish.get_by_test_id("released").click()
    expect(tally).to_contain_text("1 in")
    expect(fish.get_by_test_id("soak-rod-3")).to_have_text("soak –")
    fish.get_by_test_id("reset-rod-3").click()
    expect(fish.get_by_test_id("soak-rod-3")).to_have_text("soak 0 min")
    expect(fish.get_by_test_id("number-rod-3")).to_have_text("14 ft cable")
    fish.locator("h1").click()
    fish.keyboard.press("6")
    fish.keyboard.press("f")
    fish.keyboard.press("o")
    expect(fish.get_by_test_id("tally-rod-6")).to_contain_text("1 lost")


def test_5_a_new_temperature_stands_on_the_ribbon_and_changes_the_method(fish: Page):
    readings = int(fish.get_by_test_id("ribbon").get_attribute("data-temperatures") or 0)
    expect(fish.get_by_test_id("method-name")).to_contain_text("warming surface")
    fish.get_by_test_id("temperature").click()
    fish.get_by_test_id("number-field").fill("48.6")
    fish.get_by_test_id("number-save").click()
    expect(fish.get_by_test_id("ribbon")).to_have_attribute("data-temperatures", str(readings + 1))
    expect(fish.get_by_test_id("method-speed")).to_have_text("2.7–3.5 mph")
    expect(fish.get_by_test_id("method-school")).to_contain_text("Cover water")
    fish.get_by_test_id("school-stay_slow").click()
    expect(fish.get_by_test_id("method-school")).to_contain_text("Stay slow")
    expect(fish.get_by_test_id("method-speed")).to_have_text("0.9–1.5 mph")


def test_6_one_next_move_with_its_reason_is_done_or_put_off(fish: Page):
    what = fish.get_by_test_id("move-what")
    expect(what).to_contain_text("Slow down to 1.6 mph")
    expect(fish.get_by_test_id("move-why")).to_contain_text("outside its working range")
    fish.get_by_test_id("do-it").click()
    expect(fish.get_by_test_id("speed-input")).to_have_value("1.6")
    expect(what).not_to_contain_text("Slow down to 1.6 mph")
    expect(fish.get_by_test_id("judged")).to_contain_text("too early to tell")
    expect(what).to_contain_text("Set Rod")
    put_off = what.inner_text()
    fish.get_by_test_id("not-now").click()
    expect(what).not_to_have_text(put_off)
    expect(fish.get_by_test_id("evidence")).to_contain_text("too early to tell")
    fish.get_by_test_id("move-behind").click()
    away = fish.get_by_test_id("put-off")
    expect(away).to_contain_text(f"{put_off} (30 min more)")
    away.get_by_test_id("why-tried").check(force=True)
    expect(away.locator(".chosen")).to_have_text("tried already")
    fish.reload()
    fish.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(fish.get_by_test_id("move-what")).not_to_have_text(put_off)
    fish.get_by_test_id("move-behind").click()
    expect(fish.get_by_test_id("put-off").locator(".chosen")).to_have_text("tried already")


def test_6_strong_evidence_speaks(fish: Page):
    for _ in range(14):
        fish.get_by_test_id("hit-rod-3").click()
    expect(fish.get_by_test_id("tally-rod-3")).to_contain_text("15 hits")
    expect(fish.get_by_test_id("evidence")).to_contain_text("Rod 3 against")
    expect(fish.get_by_test_id("evidence")).to_contain_text("fishes better")


def test_all_of_it_survives_a_reload_and_a_kill(
    fish: Page, server: RunningServer, make_context: Any
):
    fish.get_by_test_id("do-it").click()
    expect(fish.get_by_test_id("speed-input")).to_have_value("1.6")
    fish.get_by_test_id("hit-rod-5").click()
    expect(fish.get_by_test_id("tally-rod-5")).to_contain_text("1 hit")
    expect(fish.get_by_test_id("link")).to_have_attribute("data-pending", "0")
    server.kill()
    server.start()
    other = make_context().new_page()
    open_demo(other, server.url, ready=False)
    expect(other.get_by_test_id("speed-input")).to_have_value("1.6")
    expect(other.get_by_test_id("tally-rod-5")).to_contain_text("1 hit")


def test_events_come_out_as_csv_and_json(fish: Page, server: RunningServer):
    fish.goto(f"{server.url}/review")
    with fish.expect_download() as download:
        fish.get_by_test_id("export-csv").first.click()
    assert "speed_changed" in download.value.path().read_text()
    with fish.expect_download() as download:
        fish.get_by_test_id("export-json").first.click()
    assert '"events"' in download.value.path().read_text()
