"""The installed app with no server, in a browser that was just started: usable, core ready.

Cold is the first start of a browser after the visit; warm a second page of the same browser.
"""

from __future__ import annotations

import sys
import tempfile
import time
from pathlib import Path

from pace import Budgets, pace
from playwright.sync_api import BrowserContext, sync_playwright

sys.path[:0] = [str(Path(__file__).parent.parent / "tests/browser")]

from opening import LAID_UP, open_demo, wait_until

from paths import CHROMIUM
from running import RunningServer

USABLE = "[data-test=hit-rod-4]"


def start(context: BrowserContext, url: str) -> tuple[float, float]:
    """Open the app; return when a tap can be made and when the core is ready, s."""
    page = context.new_page()
    begun = time.perf_counter()
    page.goto(f"{url}/fish")
    page.wait_for_selector(USABLE, timeout=60_000)
    seen = time.perf_counter() - begun
    page.wait_for_selector("[data-state=ready]", timeout=60_000)
    ready = time.perf_counter() - begun
    page.wait_for_timeout(2000)
    page.close()
    return seen, ready


def main() -> None:
    """Measure, print, and fail where a budget is not kept."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        playwright.selectors.set_test_id_attribute("data-test")
        server = RunningServer(Path(folder) / "var")
        server.start()

        def browser() -> BrowserContext:
            return playwright.chromium.launch_persistent_context(
                str(Path(folder) / "profile"), executable_path=CHROMIUM,
                args=["--no-sandbox", "--disable-gpu"], viewport={"width": 390, "height": 844},
            )

        visit = browser()
        page = visit.new_page()
        open_demo(page, server.url)
        wait_until(page, LAID_UP)
        page.reload()
        page.wait_for_selector("[data-state=ready]", timeout=60_000)
        page.wait_for_timeout(6000)
        visit.close()
        server.stop()
        budgets, before = Budgets(), pace()
        alone = browser()
        cold_seen, cold_ready = start(alone, server.url)
        _, warm_ready = start(alone, server.url)
        alone.close()
        at = 0.5 * (before + pace())
        budgets.hold("no server, browser just started, usable", cold_seen, 3.0, "s", at)
        budgets.hold("no server, core ready, cold", cold_ready, 5.0, "s", at)
        budgets.hold("no server, core ready, warm", warm_ready, 2.0, "s", at)
        budgets.end()


if __name__ == "__main__":
    main()
