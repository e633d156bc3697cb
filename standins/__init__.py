"""Stand-ins for what is outside: they speak the outside's protocol on ports of their own."""
