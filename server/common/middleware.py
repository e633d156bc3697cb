"""What stands on every answer of the API, so that a page knows who answered it."""

from __future__ import annotations

import time
from collections.abc import Callable
from datetime import UTC, datetime
from functools import cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse

Handler = Callable[[HttpRequest], HttpResponse]


@cache
def version() -> str:
    """Return the version of the front end that this server serves."""
    path = settings.DIST / "version.txt"
    return path.read_text("utf-8").strip() if path.exists() else "unbuilt"


class MarkApi:
    """Put version and clock on the answers of the API.

    A page takes an answer without them for one of something in between: a portal, a proxy. From the
    clock it measures how wrong its own is.
    """

    def __init__(self, handler: Handler) -> None:
        self.handler = handler

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer."""
        response = self.handler(request)
        if request.path.startswith("/api/"):
            response["X-Coldwake-Version"] = version()
            response["X-Coldwake-Now"] = f"{time.time():.3f}"
            response.setdefault("Cache-Control", "no-store")
        return response


class SlideSession:
    """Let a login last a season from the last day it was used, not from the first."""

    def __init__(self, handler: Handler) -> None:
        self.handler = handler

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer; once a day the session is kept anew."""
        response = self.handler(request)
        today = datetime.now(UTC).date().isoformat()
        user = getattr(request, "user", None)
        if user is not None and user.is_authenticated and request.session.get("day") != today:
            request.session["day"] = today
        return response
