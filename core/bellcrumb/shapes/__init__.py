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
    CookOut,
    EggsOut,
    FamilyOut,
    FormulaIn,
    FormulaOut,
    LineOut,
    MapOut,
    MoneyOut,
    PartKind,
    PointsOut,
    ProblemOut,
    SetClass,
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
    StageMark,
    SyrupIn,
    SyrupOut,
    SyrupPoint,
    TempReading,
    WhipIn,
)

__all__ = [
    "Celsius", "ChangeOut", "CoagulationOut", "CompareIn",
    "CompareOut", "CompositionOut", "CookOut", "CostOut", "CurvePoint", "DessertEggsIn",
    "EggsOut", "FamilyOut", "FinishIn", "FinishOut", "FitOut", "FormulaIn",
    "FormulaOut",
    "LedgerIn", "LineIn", "LineOut", "LiningOut", "MapOut", "MeringueIn",
    "MixIn", "MoneyOut", "PartKind", "PasteuriseIn",
    "PointOut", "PointsOut", "PotIn", "PotOut", "ProblemOut",
    "RestOut", "ScaleBy", "ScaleIn", "ScaleOut", "SetClass",
    "SetOut",
    "Shape", "SignOut", "SolveIn", "SolveOut", "StageMark", "Strict", "SwapIn", "SyrupIn",
    "SyrupOut", "SyrupPoint", "TasteOut", "TempReading", "TemperIn", "TrayOut",
    "VesselIn", "WeighedLine", "WhipIn", "WishesIn",
]  # fmt: skip
