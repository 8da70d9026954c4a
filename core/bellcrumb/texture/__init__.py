"""How a mix sets: the set index and its class, coagulation, and where to stop cooking."""
