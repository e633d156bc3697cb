"""Addresses of the instruments API."""

from django.urls import path

from .views import InstrumentsView, LogView, WheelView

urlpatterns = [
    path("", InstrumentsView.as_view()),
    path("log/", LogView.as_view()),
    path("wheel/", WheelView.as_view()),
]
