"""A dessert's build as it is saved, and as the core is asked for it."""

from typing import Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from bellcrumb.contract.builds import built
from bellcrumb.contract.shapes.build import (
    BuildIn,
    BuildOut,
    Cut,
    LayerIn,
    OverruleIn,
    SchoolsIn,
    StandIn,
)
from bellcrumb.dessert.works import Lies
from bellcrumb.errors import CraftError
from formulas.content import beaten_of, content_of
from formulas.models import Dessert, Version
from kitchen.access import pantry_of, vessels_of
from kitchen.models import Kitchen

_STAND = "springform_23_70"


class LayerSaved(Schema):
    """A layer from the bottom: of a part of this dessert, or of something bought."""

    part_id: UUID | None = None
    item: str = Field(default="", max_length=200, description="“200 g digestives”, for all of it")
    lies: Lies | None = Field(default=None, description="null: the usual of its kind")
    value: float | None = Field(default=None, ge=0, le=20_000)
    walls: bool | None = None


class BuildContent(Schema):
    """How a dessert is built; empty layers are its parts in order, from the bottom."""

    vessel_key: str = Field(default="", max_length=60, description="empty: that of the main part")
    count: int = Field(default=1, ge=1, le=2000)
    portions_each: int = Field(default=1, ge=1, le=500)
    cut: Cut = "whole"
    layers: list[LayerSaved] = Field(default_factory=list, max_length=40)
    filling: Literal["cold", "hot"] = "cold"
    meringue: Literal["cold", "hot"] = "cold"
    overrules: list[OverruleIn] = Field(default_factory=list, max_length=200)


def newest_versions(dessert: Dessert) -> list[Version]:
    """The newest version of each part, in the order of the parts."""
    found: dict[UUID, Version] = {}
    rows = Version.objects.filter(part__dessert=dessert).select_related("part")
    for version in rows.order_by("part__position", "-number"):
        found.setdefault(version.part_id, version)
    return list(found.values())


def content_saved(dessert: Dessert, versions: list[Version]) -> BuildContent:
    """The build as saved; before it was, the main part's vessel and every part in order."""
    if dessert.build:
        content = BuildContent.model_validate(dessert.build)
        there = {version.part_id for version in versions}
        kept = [x for x in content.layers if x.part_id is None or x.part_id in there]
        named = {x.part_id for x in kept}
        kept += [LayerSaved(part_id=v.part_id) for v in versions if v.part_id not in named]
        return content.copy(update={"layers": kept})
    main = next((v for v in versions if v.vessel_key and v.part.kind in ("filling", "cream")), None)
    main = main or next((v for v in versions if v.vessel_key), None)
    return BuildContent(
        vessel_key=main.vessel_key if main else "",
        count=main.vessel_count if main else 1,
        portions_each=main.portions_per_vessel if main else 8,
        cut="wedges" if main and main.portions_per_vessel > 1 else "whole",
        layers=[LayerSaved(part_id=v.part_id) for v in versions],
    )


def build_given(kitchen: Kitchen, versions: list[Version], content: BuildContent) -> BuildIn:
    """A build as the core's input. Raises CraftError for a part that is not in the dessert."""
    names: dict[UUID, str] = {}
    for version in versions:
        name, again = version.part.name, 2
        while name in names.values():
            name, again = f"{version.part.name} {again}", again + 1
        names[version.part_id] = name
    parts: list[dict[str, Any]] = []
    for version in versions:
        saved = content_of(version)
        parts.append({
            "name": names[version.part_id], "kind": version.part.kind,
            "lines": saved.lines_text.split("\n")[:200], "egg_grade": saved.egg_grade,
            "family": saved.family or None, "method": saved.method, "beaten": beaten_of(saved),
        })  # fmt: skip
    layers = []
    for n, layer in enumerate(content.layers):
        if layer.part_id is not None and layer.part_id not in names:
            raise CraftError(f"layers[{n}].part_id", "This part is not in the dessert (any more).")
        layers.append(
            LayerIn(
                part=names[layer.part_id] if layer.part_id else None, item=layer.item or None,
                lies=layer.lies, value=layer.value, walls=layer.walls,
            )
        )  # fmt: skip
    return BuildIn.model_validate({
        "stand": StandIn(
            vessel=content.vessel_key or _STAND, count=content.count,
            portions_each=content.portions_each, cut=content.cut,
        ).model_dump(),
        "parts": parts,
        "layers": [layer.model_dump() for layer in layers],
        "schools": SchoolsIn(filling=content.filling, meringue=content.meringue).model_dump(),
        "overrules": [o.model_dump() for o in content.overrules],
        "measures": kitchen.measures,
    })  # fmt: skip


def answer_of(kitchen: Kitchen, versions: list[Version], content: BuildContent) -> BuildOut:
    """What a build comes to. Raises CraftError at a field of it."""
    given = build_given(kitchen, versions, content)
    return built(given, pantry_of(kitchen), vessels_of(kitchen))
