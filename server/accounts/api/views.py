"""Log in, log out, and the demo account."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import (
    authenticate,
    get_user_model,
    login,
    logout,
    update_session_auth_hash,
)
from django.utils.decorators import method_decorator
from django.views.decorators.csrf import csrf_protect, ensure_csrf_cookie
from drf_spectacular.utils import extend_schema
from rest_framework import exceptions
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.throttling import ScopedRateThrottle
from rest_framework.views import APIView

from common.errors import body_of
from common.schemas import ErrorSerializer

from ..actions.make_skipper import MakeSkipper, skipper_wanted
from ..actions.own_account import ChangePassword, DeleteAccount
from ..actions.take_crew import TakeCrew
from ..demo import DEMO_USERNAME, demo_offered
from ..models import Crew
from .schemas import (
    CrewSerializer,
    LoginSerializer,
    NewPasswordSerializer,
    OwnPasswordSerializer,
    SessionSerializer,
)


def _session(request: Request) -> Response:
    user = request.user
    return Response({
        "username": user.get_username() if user.is_authenticated else None,
        "demo_offered": demo_offered(request),
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
    throttle_scope = "password"
    throttle_classes = [ScopedRateThrottle]

    @extend_schema(
        operation_id="log_in", request=LoginSerializer,
        responses={200: SessionSerializer, 400: ErrorSerializer, 429: ErrorSerializer},
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
        if user is None or not demo_offered(request):
            raise exceptions.PermissionDenied(
                "The demo account is offered only on the machine that runs the demo."
            )
        login(request._request, user, backend="django.contrib.auth.backends.ModelBackend")
        request.user = user
        return _session(request)


@method_decorator(csrf_protect, name="dispatch")
class PasswordView(APIView):
    """The user's own password."""

    throttle_scope = "password"
    throttle_classes = [ScopedRateThrottle]

    @extend_schema(
        operation_id="change_password", request=NewPasswordSerializer,
        responses={200: SessionSerializer, 422: ErrorSerializer, 429: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Change it; this browser stays logged in, all others end."""
        body = body_of(request)
        ChangePassword(
            user=request.user, password=body.get("password"),
            new_password=body.get("new_password"),
        ).execute()
        if request.user.is_authenticated:
            update_session_auth_hash(request._request, request.user)
        return _session(request)


@method_decorator(csrf_protect, name="dispatch")
class AccountView(APIView):
    """The user's own account."""

    throttle_scope = "password"
    throttle_classes = [ScopedRateThrottle]

    @extend_schema(
        operation_id="delete_account", request=OwnPasswordSerializer,
        responses={200: SessionSerializer, 422: ErrorSerializer, 429: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Delete it with everything that it owns, and log out."""
        DeleteAccount(user=request.user, password=body_of(request).get("password")).execute()
        logout(request._request)
        request.user = request._request.user
        return _session(request)


@method_decorator(csrf_protect, name="dispatch")
class CrewView(APIView):
    """Who may record on the trips that the user has open."""

    def get_throttles(self) -> list[Any]:
        """Guessing somebody's password here is guessing it."""
        self.throttle_scope = "password"
        return [ScopedRateThrottle()] if self.request.method == "POST" else []

    @extend_schema(operation_id="list_crew", responses=CrewSerializer(many=True))
    def get(self, request: Request) -> Response:
        """List them."""
        crew = Crew.objects.filter(skipper_id=request.user.pk).select_related("member")
        return Response([
            {"id": one.member_id, "username": one.member.get_username()} for one in crew
        ])

    @extend_schema(
        operation_id="take_crew", request=LoginSerializer,
        responses={201: CrewSerializer, 422: ErrorSerializer, 429: ErrorSerializer},
    )
    def post(self, request: Request) -> Response:
        """Take somebody in: a new account, or one that is here already, by its own password."""
        body = body_of(request)
        crew = TakeCrew(
            skipper=request.user, username=body.get("username"), password=body.get("password")
        ).execute()
        answer = {"id": crew.member_id, "username": crew.member.get_username()}
        return Response(answer, status=201)


@method_decorator(csrf_protect, name="dispatch")
class CrewMemberView(APIView):
    """One of the crew."""

    @extend_schema(operation_id="drop_crew", responses={204: None, 404: ErrorSerializer})
    def delete(self, request: Request, member_id: int) -> Response:
        """Let them go: their account stays theirs, the trips are closed to it."""
        # No database holds a key beyond this.
        crew = Crew.objects.filter(skipper_id=request.user.pk, member_id=min(member_id, 2**62))
        if not crew.delete()[0]:
            raise exceptions.NotFound("Nobody of this crew.")
        return Response(status=204)
