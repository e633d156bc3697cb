"""The boat: speed through water and over ground, passes and turns."""
