"""Heat: what a mix takes to warm, and a pot on a ring."""
