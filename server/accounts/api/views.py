"""Log in, log out, and the demo account."""

from __future__ import annotations

import ipaddress

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from drf_spectacular.utils import extend_schema
from rest_framework import exceptions
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from common.errors import body_of
from common.schemas import ErrorSerializer

from ..actions.make_skipper import MakeSkipper, skipper_wanted
from .schemas import LoginSerializer, SessionSerializer

DEMO_USERNAME = "demo"


def _is_local(request: Request) -> bool:
    try:
        return ipaddress.ip_address(request.META.get("REMOTE_ADDR", "")).is_loopback
    except ValueError:
        return False


def _demo_offered(request: Request) -> bool:
    return bool(settings.DEMO) and _is_local(request)


def _session(request: Request) -> Response:
    user = request.user
    return Response({
        "username": user.get_username() if user.is_authenticated else None,
        "demo_offered": _demo_offered(request),
        "skipper_wanted": skipper_wanted(),
    })


class SessionView(APIView):
    """The session of this browser."""

    permission_classes = [AllowAny]

    @extend_schema(operation_id="session", responses=SessionSerializer)
    @method_decorator(ensure_csrf_cookie)
    def get(self, request: Request) -> Response:
        """Say who is logged in; sets the CSRF cookie, which a cached page cannot."""
        return _session(request)

    @extend_schema(operation_id="log_out", request=None, responses={200: SessionSerializer})
    def delete(self, request: Request) -> Response:
        """Log out."""
        logout(request._request)
        request.user = request._request.user
        return _session(request)


@method_decorator(csrf_protect, name="dispatch")
class LoginView(APIView):
    """Log in by name and password."""

    permission_classes = [AllowAny]

    @extend_schema(
        operation_id="log_in", request=LoginSerializer,
        responses={200: SessionSerializer, 400: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Log in."""
        form = LoginSerializer(data=request.data)
        form.is_valid(raise_exception=True)
        user = authenticate(request._request, **form.validated_data)
        if user is None:
            raise exceptions.ValidationError(
                {"password": ["Name and password do not match an account."]}
            )
        login(request._request, user)
        request.user = user
        return _session(request)


@method_decorator(csrf_protect, name="dispatch")
class SkipperView(APIView):
    """The first account of a fresh install."""

    permission_classes = [AllowAny]

    @extend_schema(
        operation_id="make_skipper", request=LoginSerializer,
        responses={201: SessionSerializer, 409: ErrorSerializer, 422: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Make it and log in; there is no second of its kind."""
        body = body_of(request)
        user = MakeSkipper(
            username=body.get("username"), password=body.get("password")
        ).execute()
        login(request._request, user, backend="django.contrib.auth.backends.ModelBackend")
        request.user = user
        answer = _session(request)
        answer.status_code = 201
        return answer


@method_decorator(csrf_protect, name="dispatch")
class DemoLoginView(APIView):
    """Log in to the demo account, from this machine only."""

    permission_classes = [AllowAny]

    @extend_schema(
        operation_id="log_in_to_demo", request=None,
        responses={200: SessionSerializer, 403: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Log in."""
        user = get_user_model().objects.filter(username=DEMO_USERNAME).first()
        if user is None or not _demo_offered(request):
            raise exceptions.PermissionDenied(
                "The demo account is offered only on the machine that runs the demo."
            )
        login(request._request, user, backend="django.contrib.auth.backends.ModelBackend")
        request.user = user
        return _session(request)
