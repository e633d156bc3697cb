"""The water itself: density and viscosity of fresh water."""
