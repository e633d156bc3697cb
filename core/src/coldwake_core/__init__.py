"""The heart of Cold Wake: no I/O, no clock, no global randomness; SI units throughout."""

__version__ = "0.21.0"
