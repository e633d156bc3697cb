"""Addresses of the session API."""

from django.urls import path

from .views import DemoLoginView, LoginView, SessionView, SkipperView

urlpatterns = [
    path("", SessionView.as_view()),
    path("skipper/", SkipperView.as_view()),
    path("login/", LoginView.as_view()),
    path("demo/", DemoLoginView.as_view()),
]
