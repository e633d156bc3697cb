"""What many days say together."""
