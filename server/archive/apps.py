"""Archive: everything of an account in one file, and back."""

from django.apps import AppConfig


class ArchiveConfig(AppConfig):
    name = "archive"
