"""The record of a trip: event types, the fold to the present state, exposure."""
