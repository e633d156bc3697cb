"""What the locker tells those who stand above it."""

from django.dispatch import Signal

piece_leaving = Signal()
"""A piece is about to be deleted: a receiver that still needs it raises ConflictError."""
