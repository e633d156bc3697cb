"""Upkeep: copies of the data, and putting them back."""

from django.apps import AppConfig


class UpkeepConfig(AppConfig):
    name = "upkeep"
