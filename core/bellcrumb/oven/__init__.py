"""The oven: what happens inside a custard while it bakes, and when to pull it."""
