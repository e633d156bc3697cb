"""A fresh install: from nothing to the first line out, and a boat set up on its drawing."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from running import RunningServer

MOST_TAPS = 12
COUNT = """() => {
  if (window.__counting) return
  window.__counting = true
  addEventListener('pointerdown', () =>
    sessionStorage.setItem('taps', Number(sessionStorage.getItem('taps')) + 1), true)
}"""


@pytest.fixture
def fresh(tmp_path: Any) -> Iterator[RunningServer]:
    """A server that was installed a moment ago."""
    made = RunningServer(tmp_path)
    made.start()
    yield made
    made.stop()


def typed(page: Page, name: str, text: str) -> None:
    """Tap a field, and type into it."""
    page.get_by_test_id(name).click()
    page.keyboard.type(text)


def test_from_nothing_to_the_first_line_out_in_twelve_taps(
    fresh: RunningServer, make_context: Any
):
    page: Page = make_context().new_page()
    page.add_init_script(f"({COUNT})()")
    page.goto(fresh.url)
    expect(page.get_by_test_id("demo")).to_be_visible()
    typed(page, "name", "skipper")
    typed(page, "password", "wind-and-weather-7")
    page.get_by_test_id("enter").click()
    page.get_by_test_id("boat-4").click()
    page.get_by_test_id("species-trout").click()
    typed(page, "water-name", "Home water")
    typed(page, "water-deepest", "60")
    page.get_by_test_id("first-start").click()
    page.locator("[data-test=fish][data-state=ready]").wait_for(timeout=60_000)
    expect(page.get_by_test_id("rods").locator("> *")).to_have_count(4)
    page.get_by_test_id("reset-rod-1").click()
    typed(page, "number-field", "2")
    page.get_by_test_id("number-save").click()
    expect(page.get_by_test_id("number-rod-1")).to_contain_text("ft out")
    expect(page.get_by_test_id("lure-rod-1")).to_be_visible()
    taps = int(page.evaluate("Number(sessionStorage.getItem('taps'))"))
    assert 0 < taps <= MOST_TAPS


def test_boat_is_begun_from_one_like_it_and_a_place_is_dragged(
    signed_in: Page, server: RunningServer
):
    page = signed_in
    page.goto(f"{server.url}/locker?tab=boats")
    page.get_by_text("Add a boat").click()
    page.get_by_test_id("preset-14 ft open boat").click()
    page.get_by_test_id("pick-port-quarter").click()
    out = page.get_by_test_id("place-out-port-quarter")
    before = float(out.input_value())
    hold = page.get_by_test_id("above-port-quarter").locator("circle[fill=transparent]")
    hold.scroll_into_view_if_needed()
    box = hold.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    # Towards port, which is to the left of a boat that is drawn bow up: farther out.
    page.mouse.move(box["x"] + box["width"] / 2 - 30, box["y"] + box["height"] / 2, steps=4)
    page.mouse.up()
    after = float(out.input_value())
    assert after > before + 0.2
    page.get_by_test_id("above-port-quarter").press("ArrowLeft")
    assert float(out.input_value()) == pytest.approx(after + 0.25, abs=1e-6)
    page.get_by_test_id("save-boat").click()
    expect(page.get_by_role("status")).to_contain_text("14 ft open boat is kept")
