"""Rig: the bench, the ladder of moods, the check of a whole spread."""
