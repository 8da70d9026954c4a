"""A language nobody speaks: every letter of a message accented, and a third longer.

What is still plain English on a screen in it is in no catalogue; what is cut off has no room for
a longer language.
"""

import re

PSEUDO = "en-XA"
_PLAIN = "abcdefghiklmnoprstuvwyzABCDEFGHIKLMNOPRSTUVWYZ"
_ACCENTED = str.maketrans(_PLAIN, "àḃçďéḟĝĥîķļṁñöṕŕšţûṽŵýžÀḂÇĎÉḞĜĤÎĶĻṀÑÖṔŔŠŢÛṼŴÝŽ")
# What a message does not say itself: its places, what a plural turns on, quoted braces, units.
_PLACES = re.compile(
    r"('\{'|'\}'|\{\s*\w+\s*,\s*(?:plural|select)\s*,|\{[^{}]*\}(?!\s*(?:other|one)\s*\{)"
    r"|(?:=\d+|zero|none|one|two|few|many|other)\s*\{|\}|</?\w+>)"
)


def pseudo(message: str) -> str:
    """The message in that language; places, plurals and quoted braces as they are.

    >>> pseudo("{n} of {n, plural, one {# egg} other {# eggs}}")
    '{n} öḟ {n, plural, one {# éĝĝ·} other {# éĝĝš·}}'
    >>> pseudo("so{end, select, none {} other {: {end}}}")
    'šö{end, select, none {} other {: {end}}}'
    """
    pieces = _PLACES.split(message)
    return "".join(
        p if _PLACES.fullmatch(p) else re.sub(r"[^\W\d_]{2,}", _longer, p) for p in pieces
    )


def _longer(word: re.Match[str]) -> str:
    said = word.group()
    return said.translate(_ACCENTED) + "·" * (len(said) // 3)
