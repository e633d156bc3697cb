"""Addresses of the season's API."""

from django.urls import path

from .views import BeginView, BitesView, SeasonView, SheetView, TrendCsvView

urlpatterns = [
    path("", SeasonView.as_view()),
    path("trend.csv", TrendCsvView.as_view()),
    path("bites/<uuid:trip_id>/", BitesView.as_view()),
    path("begin/", BeginView.as_view()),
    path("sheet/", SheetView.as_view()),
]
