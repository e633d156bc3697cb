"""Every screen, in both themes, held against the published checks of axe-core (WCAG 2)."""

from __future__ import annotations

import uuid
from typing import Any

from opening import choose_quietly, open_demo
from playwright.sync_api import Browser, Page

from paths import ROOT
from running import ApiUser, RunningServer

AXE = ROOT / "web/node_modules/axe-core/axe.min.js"
PLACES = [
    "/fish", "/rig", "/rig/card", "/rig/spread", "/locker", "/locker?tab=boats",
    "/locker?tab=waters", "/plan", "/review", "/practice", "/practice/sonar",
    "/waters/1", "/first-day", "/instruments", "/account",
    "/review/season", "/practice/lessons/beside", "/practice/lessons/one-change",
    "/practice/lessons/turns",
]


def findings(page: Page, **options: Any) -> list[str]:
    page.evaluate(AXE.read_text("utf-8"))
    asked = {"resultTypes": ["violations"], **options}
    found: dict[str, Any] = page.evaluate("asked => axe.run(document, asked)", asked)
    return [
        f"{page.url}: {rule['id']}: {node['html'][:120]}"
        for rule in found["violations"] for node in rule["nodes"]
    ]


def at_last(page: Page, **options: Any) -> list[str]:
    """What is wrong once all has come: a machine under load takes its time to paint."""
    found: list[str] = []
    for _ in range(5):
        found = findings(page, **options)
        if not found:
            break
        page.wait_for_timeout(1000)
    return found


def colours(page: Page) -> list[str]:
    """What is wrong with colours alone."""
    return at_last(page, runOnly=["color-contrast", "link-in-text-block"])


def turn(page: Page, theme: str) -> None:
    """Change the theme, and wait until its colours have come."""
    there = page.locator(f".v-application.v-theme--{theme}")
    for _ in range(3):
        choose_quietly(page, "theme")
        page.wait_for_timeout(300)
        if there.count():
            break
    there.wait_for()
    page.wait_for_timeout(700)


def go(page: Page, place: str) -> None:
    """Go there as the app does, without starting it anew."""
    page.evaluate(
        """place => {
          history.pushState({}, '', place)
          dispatchEvent(new PopStateEvent('popstate'))
        }""",
        place,
    )
    page.wait_for_url(f"**{place}")
    page.wait_for_load_state("networkidle")
    page.locator("h1").first.wait_for()


def from_above(page: Page) -> None:
    """Go to Fish, and look at the spread from above."""
    go(page, "/fish")
    page.locator("[data-test=fish][data-state=ready]").wait_for(timeout=60_000)
    page.get_by_test_id("switch-view").click()
    page.get_by_test_id("top-view").wait_for()


def practised(url: str) -> list[str]:
    """Fish on a simulated day that is fished, and what was hidden of one that is over."""
    user = ApiUser(url)
    boat = user.get("/api/trips/")["outfits"][0]["id"]
    fished, over = (
        user.post("/api/practice/", {"outfit_id": boat, "seed": seed, "taps": True})["trip_id"]
        for seed in (5, 6)
    )
    user.post(f"/api/trips/{over}/events/", {"events": [{
        "id": str(uuid.uuid4()), "type": "trip_ended", "payload": {},
        "at_s": user.get(f"/api/trips/{over}/fish/")["now_s"],
    }]})
    return [f"/practice/{over}", f"/fish?trip={fished}"]


def test_no_screen_has_a_finding(browser: Browser, server: RunningServer):
    # Our own policy keeps foreign scripts out, the checker's too.
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, reduced_motion="reduce", bypass_csp=True,
        service_workers="block",
    )
    page = context.new_page()
    page.goto(server.url)
    page.get_by_test_id("demo").wait_for()
    seen = at_last(page)
    open_demo(page, server.url)
    for place in PLACES:
        go(page, place)
        seen += at_last(page)
    from_above(page)
    seen += at_last(page)
    page.keyboard.press("a")
    page.get_by_test_id("wind-dialog").wait_for()
    seen += at_last(page)
    page.keyboard.press("Escape")
    page.get_by_test_id("wind-dialog").wait_for(state="hidden")
    page.get_by_test_id("more-rod-5").click()
    page.get_by_test_id("calibrate-rod-5").click()
    page.get_by_test_id("calibration-dialog").wait_for()
    seen += at_last(page)
    page.keyboard.press("Escape")
    page.get_by_test_id("calibration-dialog").wait_for(state="hidden")
    practice = practised(server.url)
    for place in practice:
        go(page, place)
        seen += at_last(page)
    page.get_by_test_id("practice-bites").wait_for()
    turn(page, "beforeDawn")
    seen += colours(page)
    for place in (*PLACES, *practice):
        go(page, place)
        seen += colours(page)
    context.close()
    assert seen == []


def test_the_checker_finds_what_is_wrong(browser: Browser):
    page = browser.new_page()
    page.set_content('<html lang="en"><title>x</title><main><h1>x</h1><img src="x"></main></html>')
    assert any("image-alt" in line for line in findings(page))
    page.close()
