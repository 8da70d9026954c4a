"""Input and output shapes of the computations, validated at this edge and nowhere deeper."""

from bellcrumb.contract.shapes.base import (
    Celsius,
    LineIn,
    MixIn,
    PointOut,
    Shape,
    Strict,
    WeighedLine,
)
from bellcrumb.contract.shapes.change import (
    ChangeOut,
    CostOut,
    EggChoiceOut,
    ScaleBy,
    ScaleIn,
    ScaleOut,
    SolveIn,
    SolveOut,
    SwapIn,
    WishesIn,
)
from bellcrumb.contract.shapes.day import (
    CompareIn,
    CompareOut,
    DessertEggsIn,
    LedgerIn,
    LedgerOut,
    PairOut,
)
from bellcrumb.contract.shapes.fit import FitOut, RestOut, TrayOut, VesselIn
from bellcrumb.contract.shapes.formula import (
    CoagulationOut,
    CompositionOut,
    CookOut,
    EggsOut,
    FamilyOut,
    FormulaIn,
    FormulaOut,
    GuideOut,
    LineOut,
    MapOut,
    MoneyOut,
    NutritionOut,
    PartKind,
    PointsOut,
    ProblemOut,
    RatiosOut,
    ReasonOut,
    SetClass,
    SetOut,
    TasteOut,
)
from bellcrumb.contract.shapes.stove import (
    CurvePoint,
    PotIn,
    PotOut,
    RungOut,
    SignOut,
    TemperIn,
    TemperOut,
)
from bellcrumb.contract.shapes.sugar import (
    AdditionOut,
    FinishIn,
    FinishOut,
    LiningOut,
    MeringueIn,
    MeringueOut,
    PasteuriseIn,
    PasteuriseOut,
    StageMark,
    SyrupIn,
    SyrupOut,
    SyrupPoint,
    TempReading,
    WhipIn,
    WhipOut,
    WindowOut,
)

__all__ = [
    "AdditionOut", "Celsius", "ChangeOut", "CoagulationOut", "CompareIn", "CompareOut",
    "CompositionOut", "CookOut", "CostOut", "CurvePoint", "DessertEggsIn", "EggChoiceOut",
    "EggsOut", "FamilyOut", "FinishIn", "FinishOut", "FitOut", "FormulaIn", "FormulaOut",
    "GuideOut", "LedgerIn", "LedgerOut", "LineIn", "LineOut", "LiningOut", "MapOut", "MeringueIn",
    "MeringueOut", "MixIn", "MoneyOut", "NutritionOut", "PairOut", "PartKind", "PasteuriseIn",
    "PasteuriseOut", "PointOut", "PointsOut", "PotIn", "PotOut", "ProblemOut", "RatiosOut",
    "ReasonOut", "RestOut", "RungOut", "ScaleBy", "ScaleIn", "ScaleOut", "SetClass", "SetOut",
    "Shape", "SignOut", "SolveIn", "SolveOut", "StageMark", "Strict", "SwapIn", "SyrupIn",
    "SyrupOut", "SyrupPoint", "TasteOut", "TempReading", "TemperIn", "TemperOut", "TrayOut",
    "VesselIn", "WeighedLine", "WhipIn", "WhipOut", "WindowOut", "WishesIn",
]  # fmt: skip
