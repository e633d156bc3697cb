"""The boat: speed through water and over ground, current, wind, steering, reckoning."""
