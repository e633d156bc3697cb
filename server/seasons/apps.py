"""The season: what all trips say together, and what other people's spreadsheets add."""

from django.apps import AppConfig


class SeasonsConfig(AppConfig):
    name = "seasons"
