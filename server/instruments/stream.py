"""What the instruments say, pushed to a browser as it comes: server-sent events.

The only part of the server that is asynchronous: a stream would hold one of the few threads that
the views run in for as long as somebody looks.
"""

from __future__ import annotations

import asyncio
import json
import time
from collections import Counter
from http.cookies import CookieError, SimpleCookie
from types import SimpleNamespace
from typing import Any, Final

from asgiref.sync import sync_to_async
from django.conf import settings
from django.contrib.auth import get_user
from django.contrib.sessions.backends.db import SessionStore
from django.db import close_old_connections

from accounts.demo import DEMO_USERNAME

from .live import read

PATH: Final = "/api/instruments/live/"
EVERY_S: Final = 0.2
ALIVE_S: Final = 15.0
"""A stream that says nothing for longer is taken for dead by what lies between."""
LOGIN_S: Final = 60.0
"""So often it is looked whether the login still stands."""
MOST_STREAMS: Final = 12
"""Of one account: its devices with a few pages each."""
_open: Counter[int] = Counter()


async def live(scope: dict[str, Any], receive: Any, send: Any) -> None:
    """Answer one request for the stream."""
    owner = await _owner(scope)
    if scope["method"] != "GET" or owner is None:
        await _refuse(send, 401 if scope["method"] == "GET" else 405)
        return
    if _open[owner] >= MOST_STREAMS:
        await _refuse(send, 429)
        return
    _open[owner] += 1
    gone = asyncio.create_task(_gone(receive))
    try:
        await send({"type": "http.response.start", "status": 200, "headers": [
            (b"content-type", b"text/event-stream"), (b"cache-control", b"no-store"),
            (b"x-content-type-options", b"nosniff"), (b"x-accel-buffering", b"no"),
        ]})
        await _tell(scope, owner, send, gone)
    except asyncio.CancelledError:
        # The server stops: the browser comes back by itself.
        await send({"type": "http.response.body", "body": b"", "more_body": False})
    finally:
        gone.cancel()
        _open[owner] -= 1


async def _tell(scope: dict[str, Any], owner: int, send: Any, gone: asyncio.Task[None]) -> None:
    told_s = looked_s = time.monotonic()
    last: Any = ""
    while not gone.done():
        state = await asyncio.to_thread(read, owner)
        stamp = None if state is None else state["at_s"]
        now_s = time.monotonic()
        if stamp != last or now_s - told_s > ALIVE_S:
            text = f"data: {json.dumps(state)}\n\n" if stamp != last else ": still here\n\n"
            await send({"type": "http.response.body", "body": text.encode(), "more_body": True})
            told_s, last = now_s, stamp
        if now_s - looked_s > LOGIN_S:
            looked_s = now_s
            if await _owner(scope) != owner:
                break
        await asyncio.wait([gone], timeout=EVERY_S)
    if not gone.done():
        await send({"type": "http.response.body", "body": b"", "more_body": False})


async def _gone(receive: Any) -> None:
    while (await receive())["type"] != "http.disconnect":
        pass


async def _refuse(send: Any, status: int) -> None:
    await send({"type": "http.response.start", "status": status, "headers": [
        (b"content-type", b"text/plain"), (b"cache-control", b"no-store"),
    ]})
    await send({"type": "http.response.body", "body": b""})


async def _owner(scope: dict[str, Any]) -> int | None:
    """Whose login the request carries; None without one, or without a lock where there is one."""
    if settings.HTTPS_PORT is not None and scope.get("scheme") != "https":
        return None
    cookies: SimpleCookie = SimpleCookie()
    for name, value in scope["headers"]:
        if name == b"cookie":
            try:
                cookies.load(value.decode("latin-1"))
            except CookieError:
                return None
    morsel = cookies.get(settings.SESSION_COOKIE_NAME)
    if morsel is None:
        return None
    return await sync_to_async(_user_of)(morsel.value)


def _user_of(session_key: str) -> int | None:
    close_old_connections()
    try:
        # Django's own check: the account is there, and its password has not changed since.
        user: Any = get_user(SimpleNamespace(session=SessionStore(session_key)))  # type: ignore[arg-type]
        if not user.is_authenticated or (
            user.get_username() == DEMO_USERNAME and not settings.DEMO
        ):
            return None
        return int(user.pk)
    finally:
        close_old_connections()
