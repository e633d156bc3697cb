"""Fish on a phone: one screen, a thumb, and few taps for what is done all day."""

from __future__ import annotations

import re
import time
from collections.abc import Callable
from typing import Any

import pytest
from opening import open_demo, put_boat
from playwright.sync_api import Locator, Page, expect

from coldwake_core.constants import FOOT_M
from running import ApiUser, RunningServer


class Thumb:
    """Counts taps, and refuses what is not on the screen as it stands."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.taps = 0

    def on(self, name: str) -> None:
        place = self.page.get_by_test_id(name)
        self._at(place, *self._middle(place))

    def water(self, feet: int) -> None:
        """Tap the column at one of the depths that its scale names."""
        tick = self.page.get_by_test_id("water-column").get_by_text(str(feet), exact=True).first
        place = self.page.get_by_test_id("aim")
        box = place.bounding_box()
        assert box is not None
        self._at(place, box["x"] + 0.7 * box["width"], self._middle(tick)[1])

    def _middle(self, place: Locator) -> tuple[float, float]:
        box = place.bounding_box()
        assert box is not None
        return box["x"] + 0.5 * box["width"], box["y"] + 0.5 * box["height"]

    def _at(self, place: Locator, x: float, y: float) -> None:
        expect(place).to_be_in_viewport()
        self.page.mouse.click(x, y)
        self.taps += 1


@pytest.fixture
def phone(make_context: Any, server: RunningServer) -> Page:
    page: Page = make_context(390, 844).new_page()
    open_demo(page, server.url)
    return page


@pytest.fixture
def thumb(phone: Page) -> Thumb:
    return Thumb(phone)


def recorded(server: RunningServer, kind: str, fits: Callable[[Any], bool]) -> Any:
    """The latest event of a kind, once it is the one that was meant; what stands after ten seconds
    is returned as it is, for the test to say what is wrong with it."""
    user = ApiUser(server.url)
    trip = next(t for t in user.get("/api/trips/")["trips"] if t["name"] == "April morning")
    until = time.monotonic() + 10.0
    while True:
        events = user.get(f"/api/trips/{trip['id']}/events/")["events"]
        found = [e["payload"] for e in events if e["type"] == kind]
        payload = found[-1] if found else None
        if (payload is not None and fits(payload)) or time.monotonic() > until:
            return payload
        time.sleep(0.2)


def test_whole_of_fish_is_one_screen_with_every_rod_on_it(phone: Page):
    size = phone.evaluate("[document.documentElement.scrollHeight, innerHeight]")
    assert size[0] <= size[1]
    for i in range(1, 7):
        expect(phone.get_by_test_id(f"strip-rod-{i}")).to_be_in_viewport(ratio=1)
        expect(phone.get_by_test_id(f"hit-rod-{i}")).to_be_in_viewport(ratio=1)
    expect(phone.get_by_test_id("open-move")).to_be_in_viewport(ratio=1)
    expect(phone.get_by_test_id("speed-strip")).to_be_in_viewport(ratio=1)
    column = phone.get_by_test_id("water-column").bounding_box()
    assert column is not None
    assert column["height"] > 320


def test_a_hit_is_one_tap_and_so_is_taking_it_back(phone: Page, thumb: Thumb):
    thumb.on("hit-rod-5")
    assert thumb.taps == 1
    phone.get_by_test_id("strip-rod-5").click()
    expect(phone.get_by_test_id("rod-panel")).to_contain_text("1 hit")
    thumb.on("undo")
    assert thumb.taps == 2
    expect(phone.get_by_test_id("rod-panel")).to_contain_text("0 hits")


def test_a_fish_with_its_length_is_three_taps(phone: Page, thumb: Thumb, server: RunningServer):
    phone.get_by_test_id("strip-rod-1").click()
    phone.get_by_test_id("hooked-rod-1").click()
    expect(phone.get_by_test_id("landed-rod-1")).to_have_text("Net")
    thumb.on("landed-rod-1")
    thumb.on("length-16")
    thumb.on("released")
    assert thumb.taps <= 3
    inches = pytest.approx(16 * FOOT_M / 12)
    payload = recorded(server, "landed", lambda fish: fish["length_m"] == inches)
    assert payload["length_m"] == inches
    assert payload["kept"] is False


def test_a_mark_is_two_taps_on_the_water(phone: Page, thumb: Thumb, server: RunningServer):
    thumb.on("add-mark")
    thumb.water(30)
    assert thumb.taps <= 2
    near = pytest.approx(30.0, abs=1.5)
    marked = recorded(server, "mark_seen", lambda mark: mark["depth_m"] / FOOT_M == near)
    assert marked["depth_m"] / FOOT_M == near
    # The water is for looking at again.
    expect(phone.get_by_test_id("aim")).to_have_count(0)


def test_a_rod_is_set_to_another_depth_by_two_taps(
    phone: Page, thumb: Thumb, server: RunningServer
):
    thumb.on("strip-rod-3")
    thumb.water(20)
    assert thumb.taps <= 2
    payload = recorded(server, "line_set", lambda line: line["rod_id"] == "rod-3")
    assert payload["rod_id"] == "rod-3"
    assert payload["wanted_depth_m"] / FOOT_M == pytest.approx(20.0, abs=1.5)
    expect(phone.get_by_test_id("depth-rod-3")).to_contain_text(re.compile("^(19|20|21) ft"))


def test_a_new_temperature_is_two_taps(phone: Page, thumb: Thumb, server: RunningServer):
    thumb.on("temperature")
    phone.get_by_test_id("number-dialog").wait_for()
    thumb.on("likely-52.0")
    assert thumb.taps <= 2
    warm = pytest.approx((52 - 32) / 1.8)
    payload = recorded(server, "temperature_read", lambda read: read["temperature_degc"] == warm)
    assert payload["temperature_degc"] == warm
    expect(phone.get_by_test_id("temperature")).to_contain_text("52")


def test_another_lure_is_three_taps_and_all_else_on_the_rod_stays(
    phone: Page, thumb: Thumb, server: RunningServer
):
    thumb.on("strip-rod-1")
    thumb.on("swap-lure")
    phone.get_by_test_id("shelf").wait_for()
    thumb.on("pick-thin-copper")
    assert thumb.taps <= 3
    payload = recorded(server, "rod_rigged", lambda setup: setup["rod_id"] == "rod-1")
    assert (payload["rod_id"], payload["lure_id"]) == ("rod-1", "thin-copper")
    expect(phone.get_by_test_id("rod-panel")).to_contain_text("copper")


def test_what_a_bite_was_like_is_told_while_it_is_known(
    phone: Page, thumb: Thumb, server: RunningServer
):
    thumb.on("hit-rod-6")
    thumb.on("strip-rod-6")
    thumb.on("more-rod-6")
    phone.get_by_test_id("tell-rod-6").click()
    phone.get_by_test_id("felt-short").check(force=True)
    told = recorded(server, "bite_told", lambda bite: bite["felt"] == "short")
    assert told["rod_id"] == "rod-6"
    # Filled in from the record: nothing else was going on.
    expect(phone.get_by_test_id("doing-steady")).to_be_checked()
    phone.get_by_test_id("doing-outside_turn").check(force=True)
    assert recorded(server, "bite_told", lambda bite: bite["doing"])["doing"] == "outside_turn"


def test_a_pass_and_birds_are_noted(phone: Page, server: RunningServer):
    for _ in range(2):
        phone.get_by_test_id("more-notes").click()
        phone.get_by_test_id("note").click()
        phone.get_by_test_id("pass").click()
        expect(phone.get_by_test_id("note-sheet")).to_have_count(0)
    recorded(server, "pass_ended", lambda _: True)
    phone.get_by_test_id("more-notes").click()
    phone.get_by_test_id("note").click()
    expect(phone.get_by_test_id("passing")).to_contain_text("Last pass: 0 fish marked")
    phone.get_by_test_id("note-text").fill("terns off the point")
    phone.get_by_test_id("note-birds").click()
    noted = recorded(server, "noted", lambda note: True)
    assert (noted["kind"], noted["text"]) == ("birds", "terns off the point")


def test_the_way_back_through_a_bite_counts_every_lure_down(phone: Page, server: RunningServer):
    put_boat(server.url, along_m=0)
    phone.evaluate("window.dispatchEvent(new Event('focus'))")
    phone.get_by_test_id("hit-rod-1").click()
    phone.get_by_test_id("more-notes").click()
    phone.get_by_test_id("back").click()
    expect(phone.get_by_test_id("back-turn")).to_contain_text(
        re.compile(r"Turn to (port|starboard), \d+ ft round")
    )
    expect(phone.get_by_test_id("crossings").locator("li")).to_have_count(6)
    first = phone.get_by_test_id("crossings").locator("b").first
    before = first.text_content()
    expect(first).not_to_have_text(before or "")


def test_speed_is_dragged_by_a_thumb_and_refuses_nothing_it_shows(
    phone: Page, server: RunningServer
):
    box = phone.get_by_test_id("speed-slider").bounding_box()
    assert box is not None
    y = box["y"] + 0.5 * box["height"]
    phone.mouse.move(box["x"] + 0.3 * box["width"], y)
    phone.mouse.down()
    phone.mouse.move(box["x"] + 0.5 * box["width"], y, steps=4)
    phone.mouse.up()
    # Half way along the axis.
    most = float(phone.get_by_test_id("speed-slider").get_attribute("aria-valuemax") or 0)
    near = pytest.approx(0.5 * most, abs=0.11)
    payload = recorded(server, "speed_changed", lambda set_: set_["speed_mps"] / 0.44704 == near)
    assert payload["speed_mps"] / 0.44704 == near
    shown = round(payload["speed_mps"] / 0.44704, 1)
    expect(phone.get_by_test_id("speed-slider")).to_have_attribute("aria-valuenow", f"{shown:g}")
    phone.get_by_test_id("faster").click()
    more = f"{shown + 0.1:.1f}".removesuffix(".0")
    expect(phone.get_by_test_id("speed-slider")).to_have_attribute("aria-valuenow", more)
