"""A real browser against a real server."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from opening import open_demo
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, expect

from running import RunningServer


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    """Debian's Chromium; a browser download of its own is not to be had."""
    return {
        **browser_type_launch_args,
        "executable_path": "/usr/bin/chromium",
        "args": [
            "--no-sandbox",
            "--disable-gpu",
            "--disable-background-networking",
            "--disable-component-update",
        ],
    }


@pytest.fixture(scope="session", autouse=True)
def manners(playwright: Playwright) -> None:
    """Elements are named for tests by data-test; a machine under load is given time."""
    playwright.selectors.set_test_id_attribute("data-test")
    expect.set_options(timeout=15_000)


@pytest.fixture(scope="session")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[RunningServer]:
    """A server with the demo loaded, started once: starting one costs more than a test."""
    made = RunningServer(tmp_path_factory.mktemp("server"))
    made.keep()
    made.start()
    yield made
    made.stop()


@pytest.fixture
def server(running: RunningServer) -> RunningServer:
    """A server whose data stand as the demo leaves them, whatever the last test did to it."""
    running.put_back()
    if not running.is_up:
        running.start()
    return running


@pytest.fixture
def make_context(browser: Browser) -> Iterator[Any]:
    """Make contexts of a size."""
    made: list[BrowserContext] = []

    def make(width: int = 1280, height: int = 800, *, kept: bool = False) -> BrowserContext:
        # A service worker answers before a test can listen in: only the test of it has one.
        context = browser.new_context(
            viewport={"width": width, "height": height},
            reduced_motion="reduce",
            service_workers="allow" if kept else "block",
        )
        made.append(context)
        return context

    yield make
    for context in made:
        context.close()


@pytest.fixture
def fish(make_context: Any, server: RunningServer) -> Page:
    """Fish, open on the demo trip, the core in the browser ready."""
    page: Page = make_context().new_page()
    open_demo(page, server.url)
    return page
