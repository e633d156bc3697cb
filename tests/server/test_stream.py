"""Instruments pushed to a browser: to whom, as soon as something is heard, and for how long."""

from __future__ import annotations

import asyncio
import time
from pathlib import Path
from typing import Any

import pytest

from apart import played
from instruments import live, stream


def scope(method: str = "GET", cookie: str = "", scheme: str = "http") -> dict[str, Any]:
    return {
        "type": "http", "method": method, "path": stream.PATH, "scheme": scheme,
        "headers": [(b"host", b"localhost"), (b"cookie", cookie.encode())],
    }


class Browser:
    """One end of a stream."""

    def __init__(self) -> None:
        self.status, self.text, self.left = 0, "", asyncio.Event()

    async def receive(self) -> dict[str, Any]:
        await self.left.wait()
        return {"type": "http.disconnect"}

    async def send(self, message: dict[str, Any]) -> None:
        self.status = message.get("status", self.status)
        self.text += message.get("body", b"").decode()

    async def until(self, text: str) -> None:
        end = time.monotonic() + 5.0
        while text not in self.text:
            assert time.monotonic() < end, self.text
            await asyncio.sleep(0.01)


@pytest.fixture(autouse=True)
def shelf(settings: Any, tmp_path: Path) -> None:
    settings.INSTRUMENTS = tmp_path


@pytest.fixture
def known(monkeypatch: pytest.MonkeyPatch) -> list[int | None]:
    """Whom the login is of, in a test's hand."""
    owner: list[int | None] = [7]

    async def found(_: Any) -> int | None:
        return owner[0]

    monkeypatch.setattr(stream, "_owner", found)
    return owner


def state(degrees: float) -> dict[str, Any]:
    return {"at_s": time.time(), "values": [degrees]}


def test_what_is_heard_is_pushed_once_and_to_nobody_else(known: Any):
    async def play() -> None:
        browser = Browser()
        task = asyncio.create_task(stream.live(scope(), browser.receive, browser.send))
        await browser.until("data: null")
        live.write(7, state(9.5))
        live.write(8, state(4.0))
        await browser.until("[9.5]")
        await asyncio.sleep(0.5)
        assert (browser.text.count("[9.5]"), "[4.0]" in browser.text) == (1, False)
        browser.left.set()
        await asyncio.wait_for(task, 10.0)
        assert stream._open[7] == 0

    played(play())


def test_a_login_that_ends_ends_the_stream(known: Any, monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(stream, "LOGIN_S", 0.1)

    async def play() -> None:
        browser = Browser()
        task = asyncio.create_task(stream.live(scope(), browser.receive, browser.send))
        await browser.until("data: null")
        known[0] = None
        await asyncio.wait_for(task, 10.0)

    played(play())


def test_one_account_holds_so_many_streams_and_no_more(known: Any):
    async def play() -> None:
        browsers = [Browser() for _ in range(stream.MOST_STREAMS + 1)]
        tasks = []
        for browser in browsers:
            tasks.append(asyncio.create_task(
                stream.live(scope(), browser.receive, browser.send)
            ))
            await asyncio.sleep(0.02)
        assert [browser.status for browser in browsers] == [200] * stream.MOST_STREAMS + [429]
        for browser in browsers:
            browser.left.set()
        await asyncio.wait_for(asyncio.gather(*tasks), 10.0)

    played(play())


@pytest.mark.parametrize(("asked", "looked"), [
    (scope(), 0), (scope(cookie="sessionid="), 1), (scope(cookie="sessionid=" + "x" * 32), 1),
    (scope(cookie="\x00=;;="), 0),
])
def test_nobody_without_a_login_is_told(
    asked: Any, looked: int, monkeypatch: pytest.MonkeyPatch
):
    keys: list[str] = []
    monkeypatch.setattr(stream, "_user_of", keys.append)
    browser = Browser()
    played(stream.live(asked, browser.receive, browser.send))
    assert (browser.status, browser.text, len(keys)) == (401, "", looked)


@pytest.mark.django_db
def test_the_session_says_whose_it_is_until_the_password_changes(client: Any, user: Any, demo: Any,
                                                                monkeypatch: pytest.MonkeyPatch):
    monkeypatch.setattr(stream, "close_old_connections", lambda: None)
    client.force_login(user)
    key = client.cookies["sessionid"].value
    assert stream._user_of(key) == user.pk
    user.set_password("another-word-9")
    user.save()
    assert stream._user_of(key) is None
    assert stream._user_of("nonsense") is None


def test_where_there_is_a_lock_nobody_is_told_without_it(known: Any, settings: Any):
    settings.HTTPS_PORT = 8443
    asked = scope(cookie="sessionid=" + "x" * 32)
    assert played(stream_owner(asked)) is None


async def stream_owner(asked: dict[str, Any]) -> int | None:
    return await OWNER(asked)


OWNER = stream._owner
