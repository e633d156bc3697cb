"""One handler for every error of the API: ``{code, field, message}`` with the right status."""

from __future__ import annotations

import math
import sys
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse, JsonResponse
from rest_framework import exceptions, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import exception_handler

from coldwake_core.errors import CoreError, error_json

from .faults import write_down

NOT_PROCESSABLE = 422


class ConflictError(exceptions.APIException):
    """What was sent contradicts what is already kept."""

    status_code = status.HTTP_409_CONFLICT
    default_code = "conflict"


class TooLargeError(exceptions.APIException):
    """More than this server reads at once."""

    status_code = status.HTTP_413_REQUEST_ENTITY_TOO_LARGE
    default_code = "too_large"


def handle_exception(error: Exception, context: dict[str, Any]) -> Response | None:
    """Turn errors of the core and of the framework into one shape."""
    if isinstance(error, CoreError):
        return Response(error_json(error), status=NOT_PROCESSABLE)
    if isinstance(error, RecursionError):
        error = exceptions.ParseError("The body is nested too deep: send plain objects and lists.")
    if isinstance(error, RequestDataTooBig):
        error = TooLargeError("The body is larger than 2 MB: send less at once.")
    response = exception_handler(error, context)
    if response is None:
        return Response(fault_body(write_down(error, _asked(context["request"]))), status=500)
    if response is not None:
        code = getattr(error, "default_code", "error")
        field, message = _first(response.data)
        response.data = {
            "code": str(code), "field": field, "message": message, "reason": "", "limit": None,
            "low": None, "high": None,
        }
    return response


def fault_body(fault: str) -> dict[str, Any]:
    """Return the body of an answer that failed, with the id under which it is written down."""
    return {
        "code": "fault", "field": "",
        "message": f"The server failed. It is written down in its log as {fault}.", "reason": "",
        "limit": None, "low": None, "high": None,
    }


def _plain(request: HttpRequest, status_code: int, body: dict[str, Any]) -> HttpResponse:
    if request.path.startswith("/api/"):
        return JsonResponse(body, status=status_code)
    return HttpResponse(body["message"], status=status_code, content_type="text/plain")


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """Answer for an address that is none, in the shape of all errors."""
    return _plain(request, 404, {
        **fault_body(""), "code": "not_found", "message": "There is no such address."
    })


def failed(request: HttpRequest) -> HttpResponse:
    """Answer for a fault outside the API's own views."""
    error = sys.exc_info()[1] or RuntimeError("no exception at hand")
    return _plain(request, 500, fault_body(write_down(error, _asked(request))))


def _asked(request: HttpRequest | Request) -> str:
    """What was asked, and by which version of the page."""
    client = request.headers.get("X-Coldwake-Client", "unknown")[:40]
    return f"{request.method} {request.path} from page {client!r}"


def _first(data: Any, field: str = "") -> tuple[str, str]:
    """Return the first field and message of the framework's nested error data."""
    if isinstance(data, dict):
        if "detail" in data:
            return field, str(data["detail"])
        for name, inner in data.items():
            return _first(inner, f"{field}.{name}" if field else str(name))
    if isinstance(data, list) and data:
        return _first(data[0], field)
    return field, str(data)


def body_of(request: Request) -> dict[str, Any]:
    """Return the body of a request when it is a JSON object that JSON itself would allow."""
    if not isinstance(request.data, dict):
        raise exceptions.ValidationError({"body": ["must be a JSON object"]})
    body: dict[str, Any] = strict_json(dict(request.data))
    return body


def strict_json(value: Any, field: str = "") -> Any:
    """Return parsed JSON when it holds no NaN or infinity, which JSON does not know, and no half
    of a character, which no file can keep.

    Raises rest_framework.exceptions.ValidationError naming the field otherwise.
    """
    if isinstance(value, float) and not math.isfinite(value):
        raise exceptions.ValidationError({field or "body": ["must be a finite number"]})
    if isinstance(value, str) and any("\ud800" <= char <= "\udfff" for char in value):
        raise exceptions.ValidationError({field or "body": ["must be whole Unicode text"]})
    if isinstance(value, dict):
        for name, inner in value.items():
            strict_json(name, field)
            strict_json(inner, f"{field}.{name}" if field else str(name))
    if isinstance(value, list):
        for index, inner in enumerate(value):
            strict_json(inner, f"{field}[{index}]")
    return value
