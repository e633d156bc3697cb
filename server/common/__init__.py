"""What every app of the server shares: errors, shapes of the schema, CSV, strict JSON."""
