"""Method of the hour and the next move."""
