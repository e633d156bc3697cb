"""Plan: the day by hours, before it and while it runs."""
