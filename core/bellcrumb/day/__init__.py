"""The day: every step of every dessert on people, rings, ovens, mixers and cold."""
