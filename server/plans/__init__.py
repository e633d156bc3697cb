"""Plans: the day by hours, before it."""
