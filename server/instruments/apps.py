"""Instruments: what the boat's own devices say, and what of it is recorded."""

from django.apps import AppConfig


class InstrumentsConfig(AppConfig):
    name = "instruments"

    def ready(self) -> None:
        """Let what was heard go with what was listened to."""
        from django.db.models.signals import post_delete

        from .live import drop
        from .models import Listening

        post_delete.connect(drop, sender=Listening)
