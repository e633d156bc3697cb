"""The Locker, the opening spread and the looks beside the boat, as a person uses them."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page, Route, expect

from running import RunningServer


@pytest.fixture
def page(signed_in: Page) -> Page:
    """The demo account, signed in."""
    return signed_in


def locker(page: Page, server: RunningServer, tab: str = "tackle") -> None:
    page.goto(f"{server.url}/locker?tab={tab}")
    page.get_by_test_id("locker").wait_for()


def test_new_plug_from_the_catalogue_with_a_printed_depth_is_fished(
    page: Page, server: RunningServer
):
    locker(page, server)
    page.get_by_test_id("new-piece").click()
    page.get_by_test_id("field-kind").select_option("plug")
    page.get_by_test_id("plug-catalogue").select_option(label="Floating 4.5 in plug, deep lip")
    page.get_by_test_id("field-name").fill("Test plug")
    page.get_by_test_id("field-colour").fill("test stripe")
    page.get_by_test_id("add-point").click()
    page.get_by_test_id("point-out-0").fill("100")
    page.get_by_test_id("point-depth-0").fill("15")
    page.get_by_test_id("point-depth-0").press("Tab")
    page.get_by_test_id("save-piece").click()
    page.get_by_test_id("locker-search").fill("test stripe")
    row = page.locator("li", has_text="Test plug")
    row.get_by_role("button", name="more aboard").click()
    expect(row.locator(".count strong")).to_have_text("1")
    # The trip under way takes it over, and a rod can wear it.
    page.goto(f"{server.url}/rig")
    page.get_by_test_id("bring-aboard").click()
    page.get_by_test_id("rig-rod-1").click()
    page.get_by_test_id("other-lure").click()
    page.get_by_test_id("shelf").get_by_role("button", name="Test plug, test stripe").click()
    expect(page.get_by_test_id("choose-lure")).to_have_text("Test plug, test stripe")
    page.get_by_test_id("rig-it").click()
    expect(page.get_by_test_id("rig-rod-1")).to_contain_text("test stripe")


def test_deleting_takes_two_taps_and_what_a_trip_used_is_only_retired(
    page: Page, server: RunningServer
):
    locker(page, server)
    page.get_by_test_id("locker-search").fill("minnow 9 silver")
    expect(page.locator("li", has_text="Floating minnow 9")).to_have_count(1)
    page.locator("li", has_text="Floating minnow 9").get_by_role("button").first.click()
    page.get_by_test_id("delete").click()
    expect(page.get_by_test_id("delete")).to_have_text("Delete it for good?")
    page.get_by_test_id("delete").click()
    expect(page.get_by_test_id("locker-error")).to_contain_text("retire it instead")
    page.get_by_test_id("retire").click()
    expect(page.locator("li", has_text="Floating minnow 9")).to_have_count(0)
    page.get_by_test_id("show-retired").click()
    expect(page.locator("li", has_text="Floating minnow 9")).to_have_count(1)


def test_lines_say_what_they_are_made_of_and_who_says_so(page: Page, server: RunningServer):
    locker(page, server)
    page.get_by_test_id("kind-line").click()
    table = page.get_by_test_id("line-table")
    table.locator("summary").click()
    row = table.locator("tr", has_text="12 lb monofilament")
    # Nylon sinks slowly: 1.14 times water (handbook value of the polymer).
    expect(row).to_contain_text("1.14")
    expect(row).to_contain_text("from memory")


def test_bad_piece_is_told_and_what_was_typed_stays(page: Page, server: RunningServer):
    locker(page, server)
    page.get_by_test_id("new-piece").click()
    page.get_by_test_id("field-name").fill("Half done")
    page.get_by_test_id("field-length_m").fill("two")
    page.get_by_test_id("save-piece").click()
    expect(page.get_by_test_id("piece-error")).to_contain_text("length: “two” is no number")
    page.get_by_test_id("field-length_m").fill("2")
    page.get_by_test_id("save-piece").click()
    expect(page.get_by_test_id("piece-error")).to_contain_text("width is needed")
    expect(page.get_by_test_id("field-name")).to_have_value("Half done")
    expect(page.get_by_test_id("field-length_m")).to_have_value("2")


def test_csv_with_a_bad_row_is_shown_before_anything_is_imported(
    page: Page, server: RunningServer, tmp_path: Path
):
    head = "kind,name,colour,lure_kind,length_in,width_in,weight_oz,low_mph,high_mph,own_action"
    good = "lure,Import spoon,blue,spoon,2.2,0.9,0.2,1.5,3.5,yes"
    bad = "lure,No range,blue,spoon,2.2,0.9,0.2,,,yes"
    file = tmp_path / "box.csv"
    file.write_text("\n".join([head, good, bad]))
    locker(page, server)
    page.get_by_test_id("open-import").click()
    page.get_by_test_id("import-file").set_input_files(file)
    panel = page.get_by_test_id("import")
    expect(panel).to_contain_text("Row 3, low_mph")
    expect(panel.get_by_test_id("import-sum")).to_contain_text("Would import: 1 new")
    expect(panel.get_by_test_id("import-all")).to_have_count(0)
    panel.get_by_test_id("import-good").click()
    expect(panel.get_by_test_id("import-sum")).to_contain_text("Imported: 1 new")
    page.get_by_test_id("locker-search").fill("import spoon")
    expect(page.locator("li", has_text="Import spoon")).to_have_count(1)
    expect(page.locator("li", has_text="No range")).to_have_count(0)


def test_file_of_fifty_megabytes_is_refused_before_it_travels(
    page: Page, server: RunningServer, tmp_path: Path
):
    file = tmp_path / "large.csv"
    with file.open("wb") as out:
        out.truncate(50_000_000)
    locker(page, server)
    page.get_by_test_id("open-import").click()
    page.get_by_test_id("import-file").set_input_files(file)
    expect(page.get_by_test_id("import-error")).to_contain_text("50.0 MB: at most 2 MB")


def test_new_boat_begins_with_two_rods_in_two_holders(page: Page, server: RunningServer):
    locker(page, server, "boats")
    page.get_by_test_id("new-boat").click()
    page.get_by_test_id("boat-name").fill("Test skiff")
    page.get_by_test_id("boat-length").fill("14")
    page.get_by_test_id("save-boat").click()
    expect(page.get_by_role("status")).to_contain_text("Test skiff is kept")
    expect(page.locator("button", has_text="Test skiff")).to_contain_text("2 rods, 2 places")
    # Nothing is aboard it yet: one tap counts one of each.
    page.get_by_test_id("tab-tackle").click()
    page.get_by_test_id("aboard-boat").select_option(label="Test skiff")

    def slowly(route: Route) -> None:
        page.wait_for_timeout(1000)
        route.continue_()

    # The list of another kind still stands there: what is tapped is not meant for it.
    page.route(re.compile(r"/api/locker/pieces/\?.*kind=attractor"), slowly)
    page.get_by_test_id("kind-attractor").click()
    page.get_by_test_id("one-of-each").click()
    expect(page.get_by_test_id("piece-dodger-4").locator(".count strong")).to_have_text("1")


def test_first_boat_and_first_water_are_open_from_the_start(page: Page, server: RunningServer):
    locker(page, server, "boats")
    expect(page.get_by_test_id("boat-name")).to_have_value("12 ft kayak")
    expect(page.locator(".pick.chosen[data-test^=boat]")).to_contain_text("12 ft kayak")
    page.get_by_text("16 ft open boat").click()
    expect(page.get_by_test_id("boat-name")).to_have_value("16 ft open boat")
    page.get_by_test_id("tab-waters").click()
    expect(page.locator(".pick.chosen[data-test^=water]")).to_have_count(1)
    expect(page.get_by_test_id("to-chart")).to_be_visible()


def test_board_place_and_shaped_ball_are_set_up(page: Page, server: RunningServer):
    locker(page, server, "boats")
    page.get_by_text("16 ft open boat").click()
    page.get_by_test_id("pick-rigger-port").click()
    page.get_by_test_id("place-shape-rigger-port").select_option("torpedo")
    page.get_by_test_id("add-board").click()
    page.get_by_test_id("place-out-board-1").fill("sixty")
    page.get_by_test_id("save-boat").click()
    expect(page.get_by_test_id("boat-error")).to_contain_text("is no number")
    page.get_by_test_id("place-out-board-1").fill("60")
    page.get_by_test_id("save-boat").click()
    expect(page.get_by_role("status")).to_contain_text("is kept")
    page.goto(f"{server.url}/rig")
    page.get_by_test_id("bring-aboard").click()
    page.get_by_test_id("rig-rod-1").click()
    board = page.get_by_test_id("choose-place_id").locator("option", has_text="board clip")
    expect(board).to_have_count(1)


def test_rules_noted_for_a_water_say_they_are_no_law(page: Page, server: RunningServer):
    locker(page, server, "waters")
    page.get_by_text("Sallow Tarn Reservoir").click()
    page.get_by_test_id("rules-on").check()
    expect(page.get_by_test_id("water-form")).to_contain_text("It is not the law")
    page.get_by_test_id("rules-hooks").select_option("single")
    page.get_by_test_id("save-water").click()
    expect(page.get_by_test_id("water-error")).to_contain_text("origin")
    page.get_by_test_id("rules-origin").fill("made up for a test")
    page.get_by_test_id("save-water").click()
    expect(page.get_by_role("status")).to_contain_text("is kept")


def test_opening_spread_is_built_changed_judged_and_rigged(page: Page, server: RunningServer):
    page.goto(f"{server.url}/rig/spread")
    expect(page.get_by_test_id("no-breaks")).to_be_visible(timeout=60_000)
    expect(page.locator("[data-test^=opening-rod-]")).to_have_count(6)
    before = page.get_by_test_id("lure-rod-1").input_value()
    page.get_by_test_id("lure-rod-1").select_option("heavy-brass")
    expect(page.get_by_test_id("breaks")).to_contain_text("Rod 1")
    page.get_by_test_id("lure-rod-1").select_option(before)
    expect(page.get_by_test_id("no-breaks")).to_be_visible()
    page.get_by_test_id("rig-all").click()
    page.get_by_test_id("all-out").click()
    expect(page.get_by_role("status")).to_contain_text("All out")
    page.goto(f"{server.url}/fish")
    expect(page.get_by_test_id("number-rod-3")).to_contain_text("cable")


def test_own_range_seen_beside_the_boat_goes_before_the_listed_one(
    page: Page, server: RunningServer
):
    page.goto(f"{server.url}/rig")
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    page.get_by_test_id("rig-rod-4").click()
    beside = page.get_by_test_id("beside")
    audition = beside.get_by_test_id("audition")
    audition.locator("summary").click()
    audition.get_by_test_id("slowest").click()
    audition.get_by_test_id("faster").click()
    expect(audition.get_by_test_id("beside-speed")).not_to_have_text("1.8 mph")
    audition.get_by_test_id("fastest").click()
    audition.get_by_test_id("keep-range").click()
    expect(audition.locator("summary")).to_contain_text("seen")
    # Every later trip has it: the locker keeps it with the piece.
    locker(page, server)
    page.get_by_test_id("kind-attractor").click()
    expect(page.get_by_test_id("piece-dodger-4")).to_contain_text("own")


def test_lure_to_look_at_again_is_on_its_tile_until_it_is_right(page: Page, server: RunningServer):
    page.goto(f"{server.url}/rig")
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    page.get_by_test_id("rig-rod-4").click()
    page.get_by_test_id("again-bent").click()
    expect(page.get_by_test_id("look-again")).to_contain_text("bent")
    page.goto(f"{server.url}/fish")
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    again = page.get_by_test_id("again-rod-4")
    expect(again).to_contain_text("bent")
    again.click()
    expect(again).to_have_count(0)


def test_less_flash_is_answered_with_what_is_in_the_box(page: Page, server: RunningServer):
    page.goto(f"{server.url}/rig")
    page.locator("[data-state=ready]").wait_for(timeout=60_000)
    page.get_by_test_id("rig-rod-4").click()
    page.get_by_test_id("flash-more").click()
    page.get_by_test_id("thump-more").click()
    page.get_by_test_id("step-0").click()
    expect(page.get_by_test_id("choose-attractor")).to_have_text("5 in dodger")
    expect(page.get_by_test_id("rig-it")).to_be_enabled()
