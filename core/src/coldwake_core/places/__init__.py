"""One room for each place of the app: from the picture of now to what a screen shows."""
