"""The demo account: for whoever sits at the machine that runs the demo, and for nobody else."""

from __future__ import annotations

import ipaddress
from collections.abc import Callable
from typing import Any, Final

from django.conf import settings
from django.contrib.auth import logout
from django.http import HttpRequest, HttpResponse

DEMO_USERNAME: Final = "demo"
_PASSED_ON: Final = (
    "HTTP_FORWARDED", "HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_HOST", "HTTP_X_REAL_IP", "HTTP_VIA",
)
"""What a proxy puts on a request: through one, everybody comes from this machine."""


def demo_offered(request: Any) -> bool:
    """Whether the demo runs and is asked for from its own machine, by its own name."""
    meta = request.META
    if not settings.DEMO or any(name in meta for name in _PASSED_ON):
        return False
    host = str(meta.get("HTTP_HOST", meta.get("SERVER_NAME", "")))
    name = host.rsplit(":", 1)[0] if not host.endswith("]") else host
    return _is_loopback(str(meta.get("REMOTE_ADDR", ""))) and (
        name.lower() in settings.LOCAL_NAMES or _is_loopback(name.strip("[]"))
    )


def _is_loopback(text: str) -> bool:
    try:
        return ipaddress.ip_address(text).is_loopback
    except ValueError:
        return False


class EndDemo:
    """End the demo's login where the demo is not offered: it was switched off, or it travelled."""

    def __init__(self, handler: Callable[[HttpRequest], HttpResponse]) -> None:
        self.handler = handler

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer."""
        user = getattr(request, "user", None)
        if user is not None and user.is_authenticated and (
            user.get_username() == DEMO_USERNAME and not demo_offered(request)
        ):
            logout(request)
        return self.handler(request)
