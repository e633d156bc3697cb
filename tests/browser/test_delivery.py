"""A tap is never lost: sessions that end, refusals, two tabs, another login, a new version."""

from __future__ import annotations

import re
import shutil
import sqlite3
from collections.abc import Callable
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from opening import LAID_UP, choose_quietly, open_demo, wait_until
from playwright.sync_api import Page, Route, expect
from playwright.sync_api import TimeoutError as PlaywrightTimeout

from paths import ROOT
from running import ApiUser, RunningServer

OURS = {"X-Coldwake-Version": "1", "Content-Type": "application/json"}


def tallies(server: RunningServer) -> dict[str, int]:
    user = ApiUser(server.url)
    trips = user.get("/api/trips/")["trips"]
    trip = next(row["id"] for row in trips if row["name"] == "April morning")
    return {
        rod["id"]: rod["tally"]["hits"] for rod in user.get(f"/api/trips/{trip}/fish/")["rods"]
    }


def tap(page: Page, count: int, rod: str = "rod-4") -> None:
    for _ in range(count):
        page.get_by_test_id(f"hit-{rod}").click()
    expect(page.get_by_test_id(f"tally-{rod}")).to_contain_text(f"{count} hit")


def posts_get(answer: dict[str, Any]) -> Callable[[Route], None]:
    """Answer every POST so, and let all else through."""

    def handle(route: Route) -> None:
        if route.request.method == "POST":
            route.fulfill(**answer)
        else:
            route.continue_()

    return handle


def all_kept(page: Page) -> None:
    expect(page.get_by_test_id("link")).to_have_text("all kept")


def test_the_session_is_deleted_while_five_taps_wait(
    fish: Page, server: RunningServer
):
    fish.context.set_offline(True)
    tap(fish, 5)
    expect(fish.get_by_test_id("link")).to_contain_text("5 waiting here")
    server.stop()
    with closing(sqlite3.connect(server.database)) as database:
        database.execute("DELETE FROM django_session")
        database.commit()
    server.start()
    fish.context.set_offline(False)
    expect(fish.get_by_test_id("signed-out")).to_contain_text("5 waiting")
    expect(fish.get_by_test_id("link")).to_contain_text("login ended · 5 waiting here")
    expect(fish.get_by_test_id("tally-rod-4")).to_contain_text("5 hits")
    assert tallies(server)["rod-4"] == 0
    # Tapping goes on; the login brings all of it home, each once.
    tap(fish, 1, "rod-5")
    fish.get_by_role("button", name="Log in").click()
    fish.get_by_test_id("demo").click()
    all_kept(fish)
    expect(fish.get_by_test_id("tally-rod-4")).to_contain_text("5 hits")
    found = tallies(server)
    assert (found["rod-4"], found["rod-5"]) == (5, 1)


def test_what_is_not_taken_is_listed_over_reloads_and_mended(
    fish: Page, server: RunningServer
):
    fish.route("**/events/", posts_get({
        "status": 422, "headers": OURS,
        "body": '{"code":"invalid_input","field":"events[0].payload.depth_m",'
                '"message":"too deep here"}',
    }))
    fish.get_by_test_id("add-mark").click()
    fish.get_by_test_id("number-field").fill("40")
    fish.get_by_test_id("number-save").click()
    expect(fish.get_by_test_id("open-not-taken")).to_have_text("1 not taken")
    # It no longer counts on screen, for the server does not have it.
    expect(fish.get_by_label(re.compile("Mark at 40 ft"))).to_have_count(0)
    fish.reload()
    fish.locator("[data-state=ready]").wait_for(timeout=60_000)
    fish.get_by_test_id("open-not-taken").click()
    row = fish.get_by_test_id("refused-mark_seen")
    expect(row).to_contain_text("too deep here")
    fish.unroute("**/events/")
    row.get_by_test_id("mend").fill("33")
    row.get_by_test_id("send-again").click()
    expect(fish.get_by_test_id("not-taken")).to_contain_text("All is taken")
    fish.get_by_role("button", name="Close").click()
    all_kept(fish)
    expect(fish.get_by_label(re.compile("Mark at 33 ft"))).to_have_count(1)


def test_one_that_is_not_taken_is_dropped_with_the_second_press(fish: Page):
    fish.route("**/events/", posts_get({
        "status": 409, "headers": OURS,
        "body": '{"code":"conflict","field":"events[0].id","message":"another event"}',
    }))
    fish.get_by_test_id("hit-rod-4").click()
    fish.get_by_test_id("open-not-taken").click()
    expect(fish.get_by_test_id("tally-rod-4")).to_contain_text("0 hits")
    drop = fish.get_by_test_id("drop")
    drop.click()
    expect(drop).to_have_text("Drop for good?")
    drop.click()
    expect(fish.get_by_test_id("not-taken")).to_contain_text("All is taken")


def test_portals_and_busy_servers_keep_every_tap(fish: Page, server: RunningServer):
    answers = [
        {"status": 200, "content_type": "text/html", "body": "<html>Sign in to the harbour</html>"},
        {"status": 204},
        {"status": 403, "headers": OURS, "body": "{}"},
        {"status": 429, "headers": {**OURS, "Retry-After": "1"}, "body": "{}"},
    ]
    for index, answer in enumerate(answers, start=1):
        fish.route("**/events/", posts_get(answer))
        fish.get_by_test_id("hit-rod-4").click()
        expect(fish.get_by_test_id("link")).to_have_attribute("data-pending", str(index))
        expect(fish.get_by_test_id("link")).to_contain_text(f"{index} waiting here")
        fish.unroute("**/events/")
    fish.evaluate("window.dispatchEvent(new Event('online'))")
    all_kept(fish)
    assert tallies(server)["rod-4"] == len(answers)


def test_two_tabs_deliver_each_tap_once(fish: Page, server: RunningServer):
    other = fish.context.new_page()
    other.goto(f"{server.url}/fish")
    other.locator("[data-state=ready]").wait_for(timeout=60_000)
    fish.context.set_offline(True)
    tap(fish, 3)
    tap(other, 2, "rod-5")
    fish.context.set_offline(False)
    all_kept(fish)
    all_kept(other)
    found = tallies(server)
    assert (found["rod-4"], found["rod-5"]) == (3, 2)


def test_taps_of_a_trip_that_was_left_go_out_with_the_next(fish: Page, server: RunningServer):
    fish.context.set_offline(True)
    tap(fish, 4)
    fish.route("**/events/", lambda route: route.abort())
    fish.context.set_offline(False)
    other = next(
        row["id"] for row in ApiUser(server.url).get("/api/trips/")["trips"]
        if row["name"] != "April morning"
    )
    fish.goto(f"{server.url}/fish?trip={other}")
    fish.locator("[data-test=water-column] svg").wait_for()
    expect(fish.get_by_test_id("link")).to_contain_text("4 waiting here")
    fish.unroute("**/events/")
    fish.evaluate("window.dispatchEvent(new Event('online'))")
    all_kept(fish)
    assert tallies(server)["rod-4"] == 4


def test_the_next_person_sees_nothing_and_the_taps_wait_for_their_owner(
    fish: Page, server: RunningServer
):
    fish.context.set_offline(True)
    tap(fish, 2)
    choose_quietly(fish, "leave")
    expect(fish.get_by_test_id("waiting-here")).to_contain_text("2 taps of demo wait here")
    fish.context.set_offline(False)
    fish.goto(f"{server.url}/fish")
    # Left without a link: as soon as there is one, the server is told too.
    expect(fish.get_by_test_id("demo")).to_be_visible()
    assert tallies(server)["rod-4"] == 0
    fish.get_by_test_id("demo").click()
    all_kept(fish)
    assert tallies(server)["rod-4"] == 2


def test_a_phone_clock_ten_minutes_ahead_loses_nothing(make_context: Any, server: RunningServer):
    page = make_context().new_page()
    page.add_init_script("const now = Date.now; Date.now = () => now() + 600_000")
    open_demo(page, server.url)
    page.context.set_offline(True)
    tap(page, 2)
    page.context.set_offline(False)
    all_kept(page)
    assert tallies(server)["rod-4"] == 2


def test_a_worker_that_dies_is_started_again_and_no_tap_is_lost(
    fish: Page, server: RunningServer
):
    fish.get_by_test_id("hit-rod-4").click()
    worker = fish.workers[0]
    worker.evaluate("() => { self.onmessage = () => { throw new Error('out of memory') } }")
    fish.get_by_test_id("hit-rod-4").click()
    fish.locator("[data-state=ready]").wait_for(timeout=60_000)
    fish.get_by_test_id("hit-rod-4").click()
    expect(fish.get_by_test_id("tally-rod-4")).to_contain_text(re.compile("[23] hits"))
    all_kept(fish)
    shown = int(re.match(r"\d+", fish.get_by_test_id("tally-rod-4").inner_text())[0])
    assert tallies(server)["rod-4"] == shown


def test_leaving_and_opening_fast_leaves_one_trip_and_one_worker(
    fish: Page, server: RunningServer
):
    for _ in range(4):
        fish.get_by_role("link", name="Rig", exact=True).click()
        fish.get_by_role("link", name="Plan", exact=True).click()
        fish.get_by_role("link", name="Fish", exact=True).click()
    fish.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(fish.get_by_role("heading", name="Sallow Tarn Reservoir")).to_be_visible()
    assert len(fish.workers) == 1


def test_storage_that_is_full_is_gone_round_with_a_link_and_said_without(
    fish: Page, server: RunningServer
):
    fish.evaluate(
        "() => { IDBObjectStore.prototype.add = () => {"
        " throw new DOMException('', 'QuotaExceededError') } }"
    )
    fish.get_by_test_id("hit-rod-4").click()
    expect(fish.get_by_test_id("tally-rod-4")).to_contain_text("1 hit")
    assert tallies(server)["rod-4"] == 1
    fish.context.set_offline(True)
    fish.get_by_test_id("hit-rod-4").click()
    expect(fish.get_by_role("alert").filter(has_text="NOT KEPT")).to_be_visible()
    # What is kept nowhere is not counted either.
    expect(fish.get_by_test_id("tally-rod-4")).to_contain_text("1 hit")


def take_over(page: Page) -> None:
    """Press until the second version is here.

    An old worker that does not let go leaves the first one after the reload, which says so again.
    """
    for _ in range(3):
        page.get_by_test_id("take-over").click(timeout=60_000)
        try:
            page.locator("meta[name=second]").wait_for(state="attached", timeout=30_000)
        except PlaywrightTimeout:
            continue
        return
    raise AssertionError("the second version never came")


@pytest.mark.parametrize("seen_before", [True, False])
def test_a_new_version_says_so_and_takes_over_when_asked(
    make_context: Any, tmp_path: Path, demo_database: Path, seen_before: bool
):
    dist = tmp_path / "dist"
    shutil.copytree(ROOT / "web/dist", dist)
    for name in ("index.html", "sw.js"):
        (dist / f"{name}.br").unlink(missing_ok=True)
    server = RunningServer(tmp_path, dist=dist, template=demo_database)
    server.start()
    try:
        page = make_context(kept=True).new_page()
        open_demo(page, server.url)
        wait_until(page, LAID_UP)
        if seen_before:
            # What was laid up answers from the second visit on.
            page.reload()
            page.locator("[data-state=ready]").wait_for(timeout=60_000)
        server.stop()
        tap(page, 2)
        index = dist / "index.html"
        index.write_text(index.read_text().replace("<head>", '<head><meta name="second">'))
        worker = dist / "sw.js"
        text = re.sub(
            r'(\{url:"index\.html",revision:")[0-9a-f]+|(\{"?revision"?:")[0-9a-f]+(",url:"index\.html")',
            lambda found: f"{found[1] or found[2]}{'0' * 32}{found[3] or ''}", worker.read_text(),
        )
        assert text != worker.read_text()
        worker.write_text(text)
        (dist / "version.txt").write_text("second")
        server.start()
        page.evaluate("window.dispatchEvent(new Event('online'))")
        expect(page.get_by_test_id("new-version")).to_be_visible(timeout=60_000)
        all_kept(page)
        tap(page, 1, "rod-5")
        take_over(page)
        page.locator("[data-state=ready]").wait_for(timeout=60_000)
        all_kept(page)
        found = tallies(server)
        assert (found["rod-4"], found["rod-5"]) == (2, 1)
    finally:
        server.stop()


#: Keeping a tap takes a second and a half: its transaction is kept busy.
SLOW_TO_KEEP = """(() => {
  const real = IDBObjectStore.prototype.add
  IDBObjectStore.prototype.add = function (...row) {
    const asked = real.apply(this, row)
    const until = performance.now() + 1500
    const on = () => { if (performance.now() < until) this.get(0).onsuccess = on }
    on()
    return asked
  }
})()"""


def test_what_the_screen_has_said_is_kept_however_soon_the_page_is_left(
    signed_in: Page, server: RunningServer
):
    signed_in.add_init_script(SLOW_TO_KEEP)
    signed_in.goto(f"{server.url}/rig")
    signed_in.locator("[data-state=ready]").wait_for(timeout=60_000)
    signed_in.get_by_test_id("rig-rod-4").click()
    signed_in.get_by_test_id("again-bent").click()
    expect(signed_in.get_by_test_id("look-again")).to_contain_text("bent")
    signed_in.goto(f"{server.url}/fish")
    signed_in.locator("[data-state=ready]").wait_for(timeout=60_000)
    expect(signed_in.get_by_test_id("again-rod-4")).to_contain_text("bent")
