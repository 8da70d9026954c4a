"""The cold: how a part gets through the warm zone, and when it lets go of its mould."""
