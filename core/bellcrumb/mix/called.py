"""What a typed line calls its ingredient: its words as they were typed, without the amount."""

import re
from functools import lru_cache

from bellcrumb.mix.forms import spoons_in_capitals
from bellcrumb.quantities.amount import plain_text, read_amount
from bellcrumb.quantities.units import Measures


@lru_cache(maxsize=16_384)
def called(text: str, measures: Measures = "us") -> str:
    """The longest end of the line that reads as the name in it; the whole line where none does.

    >>> called("9 Egg yolks"), called("200 g moo juice"), called("rye flour")
    ('Egg yolks', 'moo juice', 'rye flour')
    """
    typed = text.strip()
    try:
        amount, name = read_amount(plain_text(spoons_in_capitals(typed)), measures)
    except (ValueError, ZeroDivisionError):
        return typed
    if amount is None or not name:
        return typed
    ends = (typed[word.start() :] for word in re.finditer(r"\S+", typed))
    return next((end for end in ends if plain_text(end) == name), typed)
