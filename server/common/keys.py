"""Keys of rows as they come in an address: hostile until read."""

from __future__ import annotations

from typing import Final

LONGEST: Final = 15
"""Digits of a key: more than any row has, and fewer than the database or a conversion breaks on."""


def key_of(text: str) -> int:
    """Return a row's key, or 0, which no row has, for what is none."""
    return int(text) if text.isascii() and text.isdigit() and len(text) <= LONGEST else 0
