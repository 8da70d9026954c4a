"""The API's document with every field described: one meaning for each name, in one table.

``data/fields.csv`` says what a field of a name is wherever it stands; ``Shape.field`` says it of
one shape where the name means something else there. A description beside the field itself wins.
"""

import csv
from functools import cache
from pathlib import Path
from typing import Any

from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema

_TABLE = Path(__file__).with_name("data") / "fields.csv"


@cache
def meanings() -> dict[str, str]:
    """What each name means."""
    rows = csv.DictReader(_TABLE.read_text("utf8").splitlines())
    return {row["field"]: row["meaning"] for row in rows}


def describe(document: dict[str, Any]) -> set[str]:
    """Describe every field and parameter that does not describe itself; the rows that were used."""
    means, used = meanings(), set()

    def say(of: dict[str, Any], *names: str) -> None:
        name = next((n for n in names if n in means), None)
        if name and "description" not in of:
            of["description"] = means[name]
            used.add(name)

    for shape, body in document["components"]["schemas"].items():
        for field, of in body.get("properties", {}).items():
            say(of, f"{shape}.{field}", field)
    for methods in document["paths"].values():
        for operation in methods.values():
            for parameter in operation.get("parameters", []):
                say(parameter, parameter["name"])
    return used


def _named_in(part: object) -> set[str]:
    """The shapes that a part of the document names."""
    if isinstance(part, dict):
        here = {part["$ref"].rsplit("/", 1)[1]} if isinstance(part.get("$ref"), str) else set()
        return here.union(*(_named_in(v) for v in part.values()))
    return set().union(*(_named_in(v) for v in part)) if isinstance(part, list) else set()


def _answer_whole(document: dict[str, Any]) -> None:
    """An answer has every field of its shape, those with a default too: only who asks may leave
    them out."""
    shapes = document["components"]["schemas"]
    operations = [o for methods in document["paths"].values() for o in methods.values()]
    asked, reached = set[str](), _named_in([o.get("requestBody") for o in operations])
    while reached - asked:
        asked |= reached
        reached = set().union(*(_named_in(shapes[name]) for name in asked))
    for name, shape in shapes.items():
        if name not in asked and "properties" in shape:
            shape["required"] = sorted(shape["properties"])


class DescribedAPI(NinjaAPI):
    """An API whose document says what every field is."""

    def get_openapi_schema(
        self, *, path_prefix: str | None = None, path_params: dict[str, Any] | None = None
    ) -> OpenAPISchema:
        """The document, described."""
        document = super().get_openapi_schema(path_prefix=path_prefix, path_params=path_params)
        describe(document)
        _answer_whole(document)
        return document
