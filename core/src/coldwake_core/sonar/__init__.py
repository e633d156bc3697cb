"""Sonar marks."""
