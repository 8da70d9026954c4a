"""What every shape builds on: strict input, lines and mixes."""

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from bellcrumb.quantities.units import Measures

Celsius = Annotated[float, Field(ge=-30, le=250)]


class Shape(BaseModel):
    """Any shape; its validator is built when it is first used, so that a command starts quickly."""

    model_config = ConfigDict(defer_build=True)


class Strict(Shape):
    """A shape that refuses fields it does not know, and numbers that are none."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


class PointOut(Shape):
    """A point of a plane."""

    x: float
    y: float


class WeighedLine(Strict):
    """A line given as an ingredient and its weight."""

    ingredient: str = Field(min_length=1, max_length=200)
    grams: float = Field(gt=0, le=1_000_000)


# A line too long to be one is answered like any other that is not understood.
LineIn = Annotated[str, Field(max_length=20_000)] | WeighedLine


class MixIn(Strict):
    """A mix: lines as a cook writes them, the egg grade they mean, and a temperature."""

    lines: list[LineIn] = Field(max_length=200)
    egg_grade: str = Field("US large", max_length=40)
    measures: Measures = Field("us", description="whose cups, spoons and pints are meant")
    temp_c: Celsius | None = Field(None, description="default 20; 90 for a hot mix in temper")
