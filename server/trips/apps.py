"""Trips: an append-only list of events each, and what they add up to."""

from django.apps import AppConfig


class TripsConfig(AppConfig):
    name = "trips"

    def ready(self) -> None:
        """Listen to what trips stand on."""
        from locker.signals import piece_leaving

        from .receivers import keep_what_was_aboard

        piece_leaving.connect(keep_what_was_aboard)
