"""Writing desserts out: our own JSON, schema.org Recipe, plain text and CSV."""

import csv
import io
import json
from collections.abc import Callable, Iterable, Iterator
from typing import Any, Literal

from bellcrumb.travel.cells import safe_cell
from bellcrumb.travel.written import Written, WrittenPart

Format = Literal["json", "jsonld", "text", "csv"]
OWN_FORMAT = 1
CSV_COLUMNS = ("dessert", "part", "kind", "line", "egg_grade", "family", "note")
RULE = "-----"


def pieces(desserts: Iterable[Written], form: Format) -> Iterator[str]:
    """Desserts as text in a format, a piece for each, so that thousands need no more room than one.

    All pieces together are read back by ``reading.read``.
    """
    each, head, between, tail = _FORMS[form]
    yield head
    for number, dessert in enumerate(desserts):
        yield (between if number else "") + each(dessert)
    yield tail


def write(desserts: list[Written], form: Format) -> str:
    """Desserts as one text in a format."""
    return "".join(pieces(desserts, form))


def _own(dessert: Written) -> str:
    data = {"name": dessert.name, "parts": [_own_part(p) for p in dessert.parts]}
    return json.dumps(data, ensure_ascii=False, indent=1)


def _own_part(part: WrittenPart) -> dict[str, Any]:
    now = {
        "lines": part.lines,
        "egg_grade": part.egg_grade,
        "family": part.family,
        "note": part.note,
        **part.settings,
    }
    return {"kind": part.kind, "name": part.name, "versions": [*part.earlier, now]}


def _headed(dessert: Written) -> list[str]:
    """The lines of every part, each under its heading; a custard alone needs none."""
    first = dessert.parts[0]
    plain = first.kind == "filling" or first.name in ("", first.kind.capitalize())
    if len(dessert.parts) == 1 and plain:
        return first.lines
    return [row for p in dessert.parts for row in (f"{p.name or p.kind} ({p.kind}):", *p.lines)]


def _notes(dessert: Written) -> str:
    return "\n".join(p.note for p in dessert.parts if p.note)


def _json_ld(dessert: Written) -> str:
    recipe: dict[str, Any] = {
        "@type": "Recipe",
        "name": dessert.name,
        "recipeIngredient": [line for line in _headed(dessert) if line.strip()],
    }
    if dessert.makes:
        recipe["recipeYield"] = dessert.makes
    if _notes(dessert):
        recipe["recipeInstructions"] = _notes(dessert)
    return json.dumps(recipe, ensure_ascii=False, indent=1)


def _text(dessert: Written) -> str:
    page = [dessert.name, ""]
    page += [f"Makes: {dessert.makes}", ""] if dessert.makes else []
    rows = _headed(dessert)
    # Words alone behind a blank row would be read as a heading.
    page += [*(["Ingredients:"] if rows is dessert.parts[0].lines else []), *rows]
    if _notes(dessert):
        page += ["", "Method:", _notes(dessert)]
    return "\n".join(page)


def _rows(rows: Iterable[Iterable[str]]) -> str:
    out = io.StringIO()
    csv.writer(out).writerows([safe_cell(cell) for cell in row] for row in rows)
    return out.getvalue()


def _csv(dessert: Written) -> str:
    return _rows(
        (dessert.name, p.name, p.kind, line, p.egg_grade, p.family, "" if number else p.note)
        for p in dessert.parts
        for number, line in enumerate(p.lines or [""])
    )


# By format: one dessert, what stands before them all, between two, and behind them all.
_FORMS: dict[Format, tuple[Callable[[Written], str], str, str, str]] = {
    "json": (_own, f'{{"bell_crumb_formulas": {OWN_FORMAT}, "desserts": [\n', ",\n", "\n]}\n"),
    "jsonld": (
        _json_ld, '{"@context": "https://schema.org", "@graph": [\n', ",\n", "\n]}\n"
    ),
    "text": (_text, "", f"\n\n{RULE}\n\n", "\n"),
    "csv": (_csv, _rows([CSV_COLUMNS]), "", ""),
}  # fmt: skip
