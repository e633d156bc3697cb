"""What is aboard: pieces, chains, leaders, what they do and when they have to be looked at."""
