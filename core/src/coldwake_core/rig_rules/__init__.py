"""Rules of thumb for rigs, each with its school, and the law of a water as the user noted it."""
