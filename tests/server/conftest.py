"""Server tests: passwords hashed quickly, since none of them guards anything."""

from __future__ import annotations

from typing import Any

import pytest


@pytest.fixture(autouse=True)
def quick_passwords(settings: Any) -> None:
    """A slow hash is the point of a password and the cost of a test."""
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture(autouse=True)
def whole_seasons(monkeypatch: Any) -> None:
    """On a slow machine days and lessons wait; a test of something else gets all of them."""
    monkeypatch.setattr("seasons.digests.PATIENCE_S", 60.0)
    monkeypatch.setattr("trips.earlier.PATIENCE_S", 60.0)


@pytest.fixture(autouse=True)
def no_throttle_left() -> None:
    """What one test has tried is not counted against the next."""
    from django.core.cache import cache

    cache.clear()
