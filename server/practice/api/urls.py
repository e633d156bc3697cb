"""Addresses of the practice API."""

from django.urls import path

from .views import PracticeListView, PracticeView, ScoreView, TruthView

urlpatterns = [
    path("", PracticeListView.as_view()),
    path("<uuid:trip_id>/", PracticeView.as_view()),
    path("<uuid:trip_id>/truth/", TruthView.as_view()),
    path("<uuid:trip_id>/score/", ScoreView.as_view()),
]
