"""Trips: an append-only list of events each, and what they add up to."""

from django.apps import AppConfig


class TripsConfig(AppConfig):
    name = "trips"
