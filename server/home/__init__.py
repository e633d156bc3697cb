"""The own network: certificates for it, and how a phone comes to trust them."""
