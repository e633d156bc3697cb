"""Accounts: Django's own users, logged in by cookie."""

from django.apps import AppConfig


class AccountsConfig(AppConfig):
    name = "accounts"
