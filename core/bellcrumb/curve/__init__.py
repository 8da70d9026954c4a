"""Curves of temperature: readings, what they tell as they come, and how far a probe is trusted."""
