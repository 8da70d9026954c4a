"""Formulas on their way in and out of the kitchen: open formats, text in and text out."""
