"""From the lines a cook writes to masses, ratios, family and the whole answer."""
