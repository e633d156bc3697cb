"""Plans of days."""

from django.apps import AppConfig


class PlansConfig(AppConfig):
    name = "plans"
