"""Fish: the water column, the rods and what to do next."""
