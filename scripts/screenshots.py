"""Make the pictures in docs/screenshots from demo data: run with PYTHONPATH=tests."""

from __future__ import annotations

import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from paths import ROOT
from running import RunningServer

PLACE = ROOT / "docs/screenshots"


def open_fish(page: Page, url: str) -> None:
    """Sign in to the demo and wait until the core in the browser is ready."""
    page.goto(url)
    page.click("[data-test=demo]")
    page.wait_for_selector("[data-state=ready]", timeout=60_000)
    page.wait_for_timeout(600)


def main() -> None:
    """Make them all."""
    PLACE.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = RunningServer(Path(folder))
        server.start()
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium", args=["--no-sandbox", "--disable-gpu"]
        )
        try:
            for name, width, height, press in (
                ("fish", 1280, 800, None), ("fish-phone", 390, 844, None),
                ("fish-dawn", 1280, 800, "theme"), ("fish-above", 1280, 800, "switch-view"),
                ("rig", 1280, 800, "/rig"), ("rig-card", 1280, 800, "/rig/card"),
                ("spread", 1280, 800, "/rig/spread"), ("locker", 1280, 800, "/locker"),
                ("river", 1280, 800, "River bars at dawn"),
            ):
                context = browser.new_context(
                    viewport={"width": width, "height": height}, reduced_motion="reduce"
                )
                page = context.new_page()
                open_fish(page, server.url)
                if press and press.startswith("/"):
                    page.goto(server.url + press)
                    page.wait_for_selector(
                        {"/rig/spread": "[data-test=no-breaks]", "/locker": "[data-test=locker] li"}
                        .get(press, "[data-state=ready]"), timeout=60_000
                    )
                    if press == "/rig":
                        page.click("[data-test=rig-rod-4]")
                elif press == "River bars at dawn":
                    page.goto(server.url + "/trips")
                    page.click(f"text={press}")
                    page.wait_for_selector("[data-state=ready]", timeout=60_000)
                elif press:
                    page.click(f"[data-test={press}]")
                    if press == "switch-view":
                        page.click("[data-test=course-port]")
                    page.mouse.move(5, 5)
                page.wait_for_timeout(500)
                page.screenshot(path=PLACE / f"{name}.png")
                context.close()
        finally:
            browser.close()
            server.stop()


if __name__ == "__main__":
    main()
