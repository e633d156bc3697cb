"""What sonar shows: slant range and cone."""
