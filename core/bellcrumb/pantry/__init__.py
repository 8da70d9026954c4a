"""Ingredients and eggs: what they are made of, weigh and may harm."""
