"""Input and output shapes of the computations, validated at this edge and nowhere deeper."""

from bellcrumb.shapes.base import (
    Celsius,
    LineIn,
    MixIn,
    PointOut,
    Shape,
    Strict,
    WeighedLine,
)
from bellcrumb.shapes.change import (
    ChangeOut,
    CostOut,
    ScaleBy,
    ScaleIn,
    ScaleOut,
    SolveIn,
    SolveOut,
    SwapIn,
    WishesIn,
)
from bellcrumb.shapes.day import (
    CompareIn,
    CompareOut,
    DessertEggsIn,
    LedgerIn,
)
from bellcrumb.shapes.fit import FitOut, RestOut, TrayOut, VesselIn
from bellcrumb.shapes.formula import (
    CoagulationOut,
    CompositionOut,
    EggsOut,
    FamilyOut,
    FormulaIn,
    FormulaOut,
    LineOut,
    MoneyOut,
    PartKind,
    PointsOut,
    ProblemOut,
    SetOut,
    TasteOut,
)
from bellcrumb.shapes.stove import (
    CurvePoint,
    PotIn,
    PotOut,
    SignOut,
    TemperIn,
)
from bellcrumb.shapes.sugar import (
    FinishIn,
    FinishOut,
    LiningOut,
    MeringueIn,
    PasteuriseIn,
    SyrupIn,
    SyrupOut,
    TempReading,
    WhipIn,
)
from bellcrumb.texture.set_index import SetClass

__all__ = [
    "Celsius", "ChangeOut", "CoagulationOut", "CompareIn",
    "CompareOut", "CompositionOut", "CostOut", "CurvePoint", "DessertEggsIn",
    "EggsOut", "FamilyOut", "FinishIn", "FinishOut", "FitOut", "FormulaIn",
    "FormulaOut",
    "LedgerIn", "LineIn", "LineOut", "LiningOut", "MeringueIn",
    "MixIn", "MoneyOut", "PartKind", "PasteuriseIn",
    "PointOut", "PointsOut", "PotIn", "PotOut", "ProblemOut",
    "RestOut", "ScaleBy", "ScaleIn", "ScaleOut", "SetClass",
    "SetOut",
    "Shape", "SignOut", "SolveIn", "SolveOut", "Strict", "SwapIn", "SyrupIn",
    "SyrupOut", "TasteOut", "TempReading", "TemperIn", "TrayOut",
    "VesselIn", "WeighedLine", "WhipIn", "WishesIn",
]  # fmt: skip
