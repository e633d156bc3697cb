"""Depth charts."""
