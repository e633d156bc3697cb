"""Tackle, and the speeds at which it works."""
