"""What to try next: method of the hour, marks to fish, moves."""
