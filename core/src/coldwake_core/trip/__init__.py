"""The open trip: its record, its solver with what it keeps, and what is known of the bottom."""
