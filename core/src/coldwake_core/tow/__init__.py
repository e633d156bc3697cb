"""The spread in plan: circles, turns as they unfold, tangles."""
