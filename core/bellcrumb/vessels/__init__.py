"""Moulds, glasses, rings and shells: their geometry and what they hold."""
