"""Asynchronous play in a thread of its own: a browser's loop may be running in this one."""

from __future__ import annotations

import asyncio
import time
from collections.abc import Callable, Coroutine
from concurrent.futures import ThreadPoolExecutor
from typing import Any


def played(play: Coroutine[Any, Any, Any]) -> Any:
    """Return what a coroutine returns."""
    with ThreadPoolExecutor(1) as thread:
        return thread.submit(asyncio.run, play).result()


async def until(true: Callable[[], bool], seconds: float = 8.0) -> None:
    """Wait until something is true, and not for ever."""
    end = time.monotonic() + seconds
    while not true():
        assert time.monotonic() < end, "in vain"
        await asyncio.sleep(0.02)
