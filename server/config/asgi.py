"""ASGI entry point: one process serves API and front end.

Every view is synchronous, so they run in a few lasting threads, each with a database connection of
its own. Under Django's own ASGI handler each request opens a connection and costs half as much
again (benchmarks/server_load.py).
"""

from typing import Any, cast

from a2wsgi import WSGIMiddleware

from .wsgi import application as django

# After Django has been set up.
from common.patience import in_time  # isort: skip
from instruments.stream import PATH, live  # isort: skip

_views = WSGIMiddleware(cast(Any, django), workers=8)


async def application(scope: Any, receive: Any, send: Any) -> None:
    """Answer: the stream of instruments here, all else by the views."""
    if scope["type"] == "http" and scope["path"] == PATH:
        await live(scope, receive, send)
    else:
        await _views(scope, in_time(receive), send)
