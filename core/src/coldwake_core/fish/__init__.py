"""What the Fish view shows, computed from a trip and its events."""
