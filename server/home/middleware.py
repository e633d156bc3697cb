"""On the own network everything is secure, or it only says how to become so."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect

Handler = Callable[[HttpRequest], HttpResponse]


class RequireHttps:
    """Send whoever comes without a lock to the page that says how to get one."""

    def __init__(self, handler: Handler) -> None:
        self.handler = handler

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer."""
        open_to_all = request.path.startswith("/trust/") or request.path == "/api/health/"
        if settings.HTTPS_PORT is None or request.is_secure() or open_to_all:
            return self.handler(request)
        return HttpResponseRedirect("/trust/")
