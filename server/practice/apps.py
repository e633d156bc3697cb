"""Practice: simulated days that are fished as real ones."""

from django.apps import AppConfig


class PracticeConfig(AppConfig):
    name = "practice"
