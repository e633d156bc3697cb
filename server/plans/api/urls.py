"""Addresses of the plans API."""

from django.urls import path

from .views import (
    DayTriedView,
    FloatPlanView,
    LegsGpxView,
    LegsView,
    PlanListView,
    PlanView,
    ReadFileView,
    WeatherView,
)

urlpatterns = [
    path("", PlanListView.as_view()),
    path("day/", DayTriedView.as_view()),
    path("float/", FloatPlanView.as_view()),
    path("legs/", LegsView.as_view()),
    path("legs.gpx", LegsGpxView.as_view()),
    path("read/", ReadFileView.as_view()),
    path("weather/", WeatherView.as_view()),
    path("<uuid:plan_id>/", PlanView.as_view()),
]
