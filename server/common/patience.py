"""Requests that are sent halfway and no further must not hold the few threads that views run in."""

from __future__ import annotations

import asyncio
import time
from collections.abc import Awaitable, Callable
from typing import Any, Final

IDLE_S: Final = 20.0
"""So long the next piece of a body is waited for: a phone with one bar sends something sooner."""
WHOLE_S: Final = 180.0
"""So long a whole body may take: forty megabytes over a link of two megabits a second."""

Receive = Callable[[], Awaitable[Any]]


def in_time(receive: Receive) -> Receive:
    """Return a receiver that takes a body that does not come on for one that broke off.

    What has come of it is then refused as cut off by whoever reads it. Once the body is whole,
    what comes after it is waited for without end.
    """
    until_s = time.monotonic() + WHOLE_S
    is_whole = False

    async def receive_in_time() -> Any:
        nonlocal is_whole
        if is_whole:
            return await receive()
        patience = min(IDLE_S, until_s - time.monotonic())
        try:
            message = await asyncio.wait_for(receive(), max(patience, 0.0))
        except TimeoutError:
            is_whole = True
            return {"type": "http.disconnect"}
        is_whole = message["type"] != "http.request" or not message.get("more_body", False)
        return message

    return receive_in_time
