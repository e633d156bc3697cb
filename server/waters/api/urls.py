"""Addresses of the waters API."""

from django.urls import path

from .views import WaterListView, WaterView

urlpatterns = [
    path("", WaterListView.as_view()),
    path("<int:water_id>/", WaterView.as_view()),
]
