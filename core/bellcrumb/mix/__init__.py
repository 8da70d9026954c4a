"""Lines, their grams, and what a mix is made of."""
