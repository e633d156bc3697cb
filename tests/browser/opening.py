"""Getting into the demo."""

from __future__ import annotations

from playwright.sync_api import Page


def open_demo(page: Page, url: str, *, ready: bool = True) -> None:
    """Sign in with the demo's button and wait until Fish is there."""
    page.goto(url)
    page.get_by_test_id("demo").click()
    page.locator("[data-test=water-column] svg").wait_for()
    if ready:
        page.locator("[data-state=ready]").wait_for(timeout=60_000)
