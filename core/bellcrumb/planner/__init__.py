"""A dessert whole and its day, planned: what is asked in shapes, over the models below."""
