"""What is said: a code and its values, made into words in one place.

Every sentence of the core and the server stands in one catalogue of ICU messages beside this
file, by language: a second language is a second file. The language is that of the house
(``CRUMB_LANGUAGE``), told when the program starts, so that what a table, a cache or the store keeps
is in it as well.
"""

import json
import os
import re
from functools import cache
from pathlib import Path
from typing import Any

from icu4py.messageformat import MessageFormat

from bellcrumb.words import measures
from bellcrumb.words.measures import OPEN, Units
from bellcrumb.words.pseudo import PSEUDO, pseudo

__all__ = ["LANGUAGE", "OPEN", "Units", "catalogue", "closed", "say", "written"]
LANGUAGE = os.environ.get("CRUMB_LANGUAGE", "en")
_HERE = Path(__file__).parent
_COUNTED = re.compile(r"\{\s*(\w+)\s*,\s*(?:number|plural|selectordinal)\b")


@cache
def catalogue(language: str = LANGUAGE) -> dict[str, str]:
    """Every message of a language by its code; what nobody has put into it yet is in English.

    Raises FileNotFoundError for a language that has no catalogue.
    """
    if language == PSEUDO:
        return {code: _pseudo(code, said) for code, said in catalogue("en").items()}
    found: dict[str, str] = json.loads((_HERE / f"{language}.json").read_text("utf-8"))
    return found if language == "en" else catalogue("en") | found


def _pseudo(code: str, message: str) -> str:
    """Lines to begin a formula with are typed, not said: they have to be understood again."""
    return message if code.startswith("starter.") else pseudo(message)


_MESSAGES = {code: measures.opened(message) for code, message in catalogue().items()}
_SYMBOLS = {unit: _MESSAGES[f"unit.{unit}"] for unit in (*measures.TAGS, *measures.US)}


def say(code: str, /, **values: Any) -> str:
    """The words of a code, its values in their places. Raises KeyError for a code nobody wrote.

    The catalogue says how many digits a quantity is shown with; any other value is shown as text.
    What has a unit stays open until it is known who reads it: see ``closed``.

    >>> say("planner.one_more_oven")
    'One more oven.'
    >>> say("formula.opened_together_they_take_eggs_fewer", saved=1)
    'Opened together they take 1 egg fewer than one formula at a time.'
    """
    if not code:  # an empty cell of a table says nothing
        return ""
    message = _MESSAGES[code]
    if "{" not in message:
        return message
    pattern, numbers, bare = _read(code)
    shown = {k: float(v) if k in numbers else str(v) for k, v in values.items()}
    shown |= {f"bare_{k}": repr(float(values[k])) for k in bare}
    return str(pattern.format(shown))  # type: ignore[arg-type]


def closed(text: str, units: Units = "metric", gap: str = " ") -> str:
    """What was said, its quantities written out in somebody's units, ``gap`` before each.

    >>> closed(say("cause.pull_at_wobble_allow_2_to"), "us")
    'pull at wobble; allow 4 to 11 °F carry-over'
    """
    return measures.closed(text, units, LANGUAGE, _SYMBOLS, gap)


def written(value: Any, units: Units = "metric") -> Any:
    """Plain data (objects, lists, text) with all that is said in it closed."""
    if isinstance(value, str):
        return closed(value, units)
    if isinstance(value, dict):
        return {key: written(v, units) for key, v in value.items()}
    if isinstance(value, list):
        return [written(v, units) for v in value]
    return value


@cache
def _read(code: str) -> tuple[MessageFormat, frozenset[str], frozenset[str]]:
    message = _MESSAGES[code]
    numbers = frozenset(_COUNTED.findall(message))
    return MessageFormat(message, LANGUAGE), numbers, measures.bare(message)
