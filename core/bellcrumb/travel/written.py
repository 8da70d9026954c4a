"""A dessert as it is written down, before anything in it is understood."""

import re
from dataclasses import KW_ONLY, dataclass, field
from typing import Any

PART_KINDS = ("crust", "filling", "caramel", "meringue", "cream", "glaze", "garnish")
# Words in a heading that tell what kind of part follows.
_KIND_WORDS = {
    "crust": "crust base dough pastry shell pâte pasta masa short teig boden mürbeteig streusel",
    "caramel": "caramel caramello caramelo karamell",
    "meringue": "meringue meringa merengue baiser",
    "cream": "cream creme crème crema custard anglaise chantilly",
    "glaze": "glaze ganache icing sauce coulis guss glasur",
    "garnish": "garnish decoration topping serve belag deko",
    "filling": "filling pudding garniture ripieno relleno füllung",
}
_FOR_THE = (
    r"(?:for the|for|pour (?:la|le|les)|pour l['’]|per (?:la|il|lo|le|i|gli)|per l['’]"
    r"|para (?:la|el|los|las)|für (?:den|die|das))"
)
_HEADING = re.compile(rf"^\s*(?:#+\s*)?(?:{_FOR_THE}\s*)?\b(.+?)\s*:\s*$", re.I)
_FOR_A_PART = re.compile(rf"^{_FOR_THE}\s*[^\W\d]", re.I)
# What a part is called and no ingredient is.
_PARTS = frozenset(
    "crust base dough batter custard filling topping garnish assembly pâte garniture ripieno"
    " relleno masa teig boden füllung belag".split()
)
_NAMED_KIND = re.compile(rf"^(.+?)\s*\(({'|'.join(PART_KINDS)})\)$", re.I)


@dataclass
class WrittenPart:
    """One part: its lines as typed, and what else was said of it.

    ``settings`` holds the fields only our own format knows (vessel, ring, ladle, ...).
    """

    kind: str = "filling"
    name: str = ""
    lines: list[str] = field(default_factory=list)
    _: KW_ONLY
    note: str = ""
    egg_grade: str = ""
    family: str = ""
    settings: dict[str, Any] = field(default_factory=dict)
    earlier: list[dict[str, Any]] = field(default_factory=list)


@dataclass
class Written:
    """One dessert as it travels."""

    name: str
    parts: list[WrittenPart]
    makes: str = ""
    _: KW_ONLY
    problems: list[str] = field(default_factory=list)


def kind_of(words: str) -> str:
    """The kind of part a heading speaks of; a filling when it does not say."""
    found = set(re.findall(r"\w+", words.lower()))
    for kind, telling in _KIND_WORDS.items():
        if found & set(telling.split()):
            return kind
    return "filling"


def heading_of(line: str) -> tuple[str, str] | None:
    """The name and kind in a heading line ("Rye crust (crust):", "For the cream:"), else None."""
    found = _HEADING.match(line)
    if not found:
        return None
    named = _NAMED_KIND.match(found.group(1))
    if named:
        return named.group(1), named.group(2).lower()
    return found.group(1)[:1].upper() + found.group(1)[1:], kind_of(found.group(1))


def names_a_part(row: str) -> bool:
    """Whether a row without an amount can only name a part: "For the pastry", "Rye crust",
    "[Caramel]"."""
    if row.startswith("[") and row.endswith("]"):
        return True
    words = row.rstrip(" :").lower().split()
    return bool(_FOR_A_PART.match(row)) or bool(words and words[-1] in _PARTS) or row.isupper()


def parts_of(lines: list[str], note: str) -> list[WrittenPart]:
    """Split lines into parts at their headings; the note stays with the first part."""
    parts = [WrittenPart()]
    for line in lines:
        heading = heading_of(line)
        if heading is None:
            parts[-1].lines.append(line)
        elif parts[-1].lines or parts[-1].name:
            parts.append(WrittenPart(name=heading[0], kind=heading[1]))
        else:
            parts[-1].name, parts[-1].kind = heading
    kept = [p for p in parts if any(line.strip() for line in p.lines) or p.name] or parts[:1]
    kept[0].note = note
    return kept
