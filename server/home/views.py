"""How a phone comes to trust this machine: open to all, for it is needed before any login."""

from __future__ import annotations

import io

import segno
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_safe

from .certificates import Identity


@require_safe
def trust(request: HttpRequest) -> HttpResponse:
    """Show what to do, phone by phone."""
    return render(request, "home/trust.html", {
        "secure": request.is_secure(), "served": settings.HTTPS_PORT is not None,
        "address": _address(request),
    })


@require_safe
def authority(request: HttpRequest) -> HttpResponse:
    """Give the certificate that phones are told to believe; its key never leaves the machine."""
    path = Identity(settings.TLS).authority
    if settings.HTTPS_PORT is None or not path.exists():
        raise Http404
    return HttpResponse(
        path.read_bytes(), content_type="application/x-x509-ca-cert",
        headers={"Content-Disposition": 'attachment; filename="cold-wake.crt"'},
    )


@require_safe
def code(request: HttpRequest) -> HttpResponse:
    """Draw the address, to be read by a phone's camera."""
    out = io.BytesIO()
    segno.make(_address(request), error="m").save(out, kind="svg", scale=6, border=2)
    return HttpResponse(out.getvalue(), content_type="image/svg+xml")


def _address(request: HttpRequest) -> str:
    """The secure address of this machine, by the name that it was just reached by."""
    host = request.get_host().rsplit(":", 1)[0] if settings.HTTPS_PORT else request.get_host()
    if settings.HTTPS_PORT is None:
        return f"{request.scheme}://{host}/"
    return f"https://{host}:{settings.HTTPS_PORT}/"
