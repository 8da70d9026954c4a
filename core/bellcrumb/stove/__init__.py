"""At the stove: which ingredient goes where, tempering, the guide and following a live cook."""
