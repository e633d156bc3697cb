"""A real browser against a real server."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from opening import open_demo
from playwright.sync_api import Browser, BrowserContext, Page, Playwright, expect

from paths import CHROMIUM
from running import ApiUser, RunningServer


@pytest.fixture(scope="session")
def browser_type_launch_args(browser_type_launch_args: dict[str, Any]) -> dict[str, Any]:
    """Debian's Chromium; a browser download of its own is not to be had."""
    return {
        **browser_type_launch_args,
        "executable_path": CHROMIUM,
        "args": [
            "--no-sandbox",
            "--disable-gpu",
            "--disable-background-networking",
            "--disable-component-update",
            # A page lives for seconds here: compiling its runtime a second time, to run faster,
            # takes two fifths of all that it costs.
            "--js-flags=--no-wasm-tier-up --no-wasm-dynamic-tiering",
        ],
    }


@pytest.fixture(scope="session", autouse=True)
def manners(playwright: Playwright) -> None:
    """Elements are named for tests by data-test; a machine under load is given time."""
    playwright.selectors.set_test_id_attribute("data-test")
    expect.set_options(timeout=30_000)


@pytest.fixture(scope="session")
def running(
    tmp_path_factory: pytest.TempPathFactory, demo_database: Path
) -> Iterator[RunningServer]:
    """A server with the demo loaded, started once: starting one costs more than a test."""
    made = RunningServer(tmp_path_factory.mktemp("server"), template=demo_database)
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


Pool = dict[tuple[int, int], list[BrowserContext]]


@pytest.fixture(scope="session")
def pool() -> Iterator[Pool]:
    """Contexts that are used again, with nothing in them but the browser's own cache.

    A new one compiles the runtime anew, which costs more than most tests.
    """
    contexts: Pool = {}
    yield contexts
    for context in (one for several in contexts.values() for one in several):
        context.close()


def emptied(context: BrowserContext) -> None:
    """Leave nothing of a test in a context: pages, logins, what was stored, what was bent."""
    for page in context.pages:
        page.close()
    context.unroute_all(behavior="ignoreErrors")
    context.set_offline(False)
    context.clear_cookies()
    context.clear_permissions()


@pytest.fixture
def make_context(browser: Browser, pool: Pool, running: RunningServer) -> Iterator[Any]:
    """Give contexts of a size, each as empty as a new one."""
    given: list[tuple[tuple[int, int], BrowserContext]] = []
    closed: list[BrowserContext] = []

    def make(width: int = 1280, height: int = 800, *, kept: bool = False) -> BrowserContext:
        free = pool.setdefault((width, height), [])
        if free and not kept:
            context = free.pop()
        else:
            # A service worker answers before a test can listen in: only the test of it has one.
            context = browser.new_context(
                viewport={"width": width, "height": height},
                reduced_motion="reduce",
                service_workers="allow" if kept else "block",
            )
        if kept:
            closed.append(context)
        else:
            given.append(((width, height), context))
        return context

    yield make
    for context in closed:
        context.close()
    for size, context in given:
        emptied(context)
        page = context.new_page()
        session = context.new_cdp_session(page)
        session.send("Storage.clearDataForOrigin", {
            "origin": running.url,
            "storageTypes": "local_storage,indexeddb,cache_storage,service_workers,websql",
        })
        page.close()
        pool[size].append(context)


@pytest.fixture
def signed_in(make_context: Any, server: RunningServer) -> Page:
    """A page whose browser is signed in to the demo and has not opened anything yet.

    Going by Fish would start the core, which costs more than most tests that do without it.
    """
    context: BrowserContext = make_context()
    context.add_cookies([
        {"name": cookie.name, "value": cookie.value or "", "url": server.url}
        for cookie in ApiUser(server.url).jar
    ])
    return context.new_page()


@pytest.fixture
def fish(make_context: Any, server: RunningServer) -> Page:
    """Fish, open on the demo trip, the core in the browser ready."""
    page: Page = make_context().new_page()
    open_demo(page, server.url)
    return page
