"""A simulated lake: worlds whose truth is known, and a bench of advice on them (needs numpy)."""
