"""Trips: an append-only list of events each, and what they add up to."""

from django.apps import AppConfig


class TripsConfig(AppConfig):
    name = "trips"

    def ready(self) -> None:
        """Listen to what trips stand on."""
        from django.db.models.signals import post_delete

        from locker.signals import piece_leaving

        from .models import Photo
        from .receivers import drop_picture, keep_what_was_aboard

        piece_leaving.connect(keep_what_was_aboard)
        post_delete.connect(drop_picture, sender=Photo)
