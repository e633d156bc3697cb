"""Addresses of the trip API."""

from django.urls import path

from .opening import ChangedOpeningView, OpeningView, PlannedOpeningView
from .views import (
    AboardNewsView,
    BenchView,
    BesideView,
    EventsView,
    ExportCsvView,
    ExportJsonView,
    FirstDayView,
    FishView,
    LadderView,
    LastSurfaceView,
    LinesView,
    ManoeuvreView,
    NumbersView,
    NumberView,
    OrdersView,
    PlanView,
    SpreadView,
    TightestView,
    TripListView,
    TripView,
)

urlpatterns = [
    path("", TripListView.as_view()),
    path("first-day/", FirstDayView.as_view()),
    path("planned-opening/", PlannedOpeningView.as_view()),
    path("last-surface/", LastSurfaceView.as_view()),
    path("<uuid:trip_id>/", TripView.as_view()),
    path("<uuid:trip_id>/events/", EventsView.as_view()),
    path("<uuid:trip_id>/fish/", FishView.as_view()),
    path("<uuid:trip_id>/lines/", LinesView.as_view()),
    path("<uuid:trip_id>/number/", NumberView.as_view()),
    path("<uuid:trip_id>/plan/", PlanView.as_view()),
    path("<uuid:trip_id>/manoeuvre/", ManoeuvreView.as_view()),
    path("<uuid:trip_id>/numbers/", NumbersView.as_view()),
    path("<uuid:trip_id>/bench/", BenchView.as_view()),
    path("<uuid:trip_id>/ladder/", LadderView.as_view()),
    path("<uuid:trip_id>/beside/", BesideView.as_view()),
    path("<uuid:trip_id>/news/", AboardNewsView.as_view()),
    path("<uuid:trip_id>/spread/", SpreadView.as_view()),
    path("<uuid:trip_id>/opening/", OpeningView.as_view()),
    path("<uuid:trip_id>/opening/judge/", ChangedOpeningView.as_view()),
    path("<uuid:trip_id>/orders/", OrdersView.as_view()),
    path("<uuid:trip_id>/tightest/", TightestView.as_view()),
    path("<uuid:trip_id>/export.json", ExportJsonView.as_view()),
    path("<uuid:trip_id>/export.csv", ExportCsvView.as_view()),
]
