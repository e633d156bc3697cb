"""Towed lines: where is the lure, and which number puts it there."""
