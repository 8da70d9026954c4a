"""Writing desserts out: our own JSON, schema.org Recipe, plain text and CSV."""

import csv
import io
import json
from typing import Any, Literal

from bellcrumb.travel.cells import safe_cell
from bellcrumb.travel.written import Written, WrittenPart

Format = Literal["json", "jsonld", "text", "csv"]
OWN_FORMAT = 1
CSV_COLUMNS = ("dessert", "part", "kind", "line", "egg_grade", "family", "note")
RULE = "-----"


def write(desserts: list[Written], form: Format) -> str:
    """Desserts as text in a format; each of them can be read back by ``reading.read``."""
    return {"json": _own, "jsonld": _json_ld, "text": _text, "csv": _csv}[form](desserts)


def _own(desserts: list[Written]) -> str:
    data = {
        "bell_crumb_formulas": OWN_FORMAT,
        "desserts": [{"name": d.name, "parts": [_own_part(p) for p in d.parts]} for d in desserts],
    }
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


def _json_ld(desserts: list[Written]) -> str:
    graph = []
    for d in desserts:
        recipe: dict[str, Any] = {
            "@type": "Recipe",
            "name": d.name,
            "recipeIngredient": [line for line in _headed(d) if line.strip()],
        }
        if d.makes:
            recipe["recipeYield"] = d.makes
        if _notes(d):
            recipe["recipeInstructions"] = _notes(d)
        graph.append(recipe)
    return json.dumps(
        {"@context": "https://schema.org", "@graph": graph}, ensure_ascii=False, indent=1
    )


def _text(desserts: list[Written]) -> str:
    pages = []
    for d in desserts:
        page = [d.name, ""]
        page += [f"Makes: {d.makes}", ""] if d.makes else []
        page += _headed(d)
        if _notes(d):
            page += ["", "Method:", _notes(d)]
        pages.append("\n".join(page))
    return f"\n\n{RULE}\n\n".join(pages) + "\n"


def _csv(desserts: list[Written]) -> str:
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(CSV_COLUMNS)
    for d in desserts:
        for p in d.parts:
            for number, line in enumerate(p.lines or [""]):
                note = p.note if number == 0 else ""
                cells = (d.name, p.name, p.kind, line, p.egg_grade, p.family, note)
                rows.writerow([safe_cell(cell) for cell in cells])
    return out.getvalue()
