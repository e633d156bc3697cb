"""The water column through a day (numpy: stays on the server): heat, mixing, an ensemble."""
