"""Cooking for practice: the same guide against a pot that only pretends."""
