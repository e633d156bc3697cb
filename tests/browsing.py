"""A server of its own with the demo, and a browser to look at it with."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

from paths import CHROMIUM
from running import RunningServer


@contextmanager
def demo_in_browser(template: Path | None = None) -> Iterator[tuple[RunningServer, Browser]]:
    """Start both, on a copy of a database where one is named; stop them however it ends."""
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server = RunningServer(Path(folder), template=template)
        server.start()
        browser = playwright.chromium.launch(
            executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"]
        )
        try:
            yield server, browser
        finally:
            browser.close()
            server.stop()
