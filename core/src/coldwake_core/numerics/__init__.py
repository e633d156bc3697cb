"""Small linear algebra: what the browser's Python lacks."""
