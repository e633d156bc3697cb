"""The spread builder. It stands on scipy and stays on the server."""
