"""The laws everything else is computed from, each once: numbers in, numbers out, no mix and no pot.

A law says its equation, its units, where it holds, what it raises and where it is from, and shows
one example (`./crumb test core` runs them). A number without a source is "our estimate".
"""
