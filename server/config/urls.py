"""All addresses: the API, its schema, and the front end for everything else."""

from django.conf import settings
from django.db import connection
from django.http import FileResponse, HttpRequest, HttpResponse, JsonResponse
from django.http.response import HttpResponseBase
from django.urls import include, path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from drf_spectacular.views import SpectacularAPIView

from common.middleware import version


@ensure_csrf_cookie
def front_end(request: HttpRequest) -> HttpResponseBase:
    """Serve the built page; its router takes it from there."""
    page = settings.DIST / "index.html"
    if not page.exists():
        return HttpResponse("The front end is not built: run make build.", status=503)
    response = FileResponse(page.open("rb"), content_type="text/html")
    response["Cache-Control"] = "no-cache"
    return response


def health(request: HttpRequest) -> HttpResponse:
    """Say whether the server and its database answer."""
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1")
    return JsonResponse({"ok": True, "version": version()})


handler404 = "common.errors.not_found"
handler500 = "common.errors.failed"
urlpatterns = [
    path("api/health/", health),
    path("trust/", include("home.urls")),
    path("api/schema/", SpectacularAPIView.as_view(), name="schema"),
    path("api/session/", include("accounts.api.urls")),
    path("api/trips/", include("trips.api.urls")),
    path("api/locker/", include("locker.api.urls")),
    path("api/waters/", include("waters.api.urls")),
    path("api/plans/", include("plans.api.urls")),
    path("api/archive/", include("archive.api.urls")),
    path("api/seasons/", include("seasons.api.urls")),
    path("api/practice/", include("practice.api.urls")),
    path("api/instruments/", include("instruments.api.urls")),
    re_path(r"^(?!api/|static/|assets/|trust/).*$", front_end, name="front-end"),
]
