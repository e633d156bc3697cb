"""Above: the spread seen from above, straight, in turns and as a turn unfolds."""
