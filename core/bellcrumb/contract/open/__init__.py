"""What the server may use of the core beside the kinds that are asked: one list for each room."""
