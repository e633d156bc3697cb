"""Addresses of the session API."""

from django.urls import path

from .views import (
    AccountView,
    CrewMemberView,
    CrewView,
    DemoLoginView,
    LoginView,
    PasswordView,
    SessionView,
    SkipperView,
)

urlpatterns = [
    path("", SessionView.as_view()),
    path("skipper/", SkipperView.as_view()),
    path("login/", LoginView.as_view()),
    path("password/", PasswordView.as_view()),
    path("delete-account/", AccountView.as_view()),
    path("crew/", CrewView.as_view()),
    path("crew/<int:member_id>/", CrewMemberView.as_view()),
    path("demo/", DemoLoginView.as_view()),
]
