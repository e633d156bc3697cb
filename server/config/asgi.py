"""ASGI entry point: one process serves API and front end.

Every view is synchronous, so they run in a few lasting threads, each with a database connection of
its own. Under Django's own ASGI handler each request opens a connection and costs half as much
again (benchmarks/server_load.py).
"""

from typing import Any, cast

from a2wsgi import WSGIMiddleware

from .wsgi import application as django

application = WSGIMiddleware(cast(Any, django), workers=8)
