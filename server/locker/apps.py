"""Locker: what is set up once and taken along on trips."""

from django.apps import AppConfig


class LockerConfig(AppConfig):
    name = "locker"
