"""Review: what was, counted."""
