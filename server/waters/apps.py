"""Waters: lakes and rivers that trips are made on."""

from django.apps import AppConfig


class WatersConfig(AppConfig):
    name = "waters"
