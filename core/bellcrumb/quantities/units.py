"""Kitchen units and their size in grams or millilitres.

The factors are exact by definition (US customary, 1959 pound); a test compares them with pint's
registry, which takes a second to load and so is not needed at run time.
"""

from dataclasses import KW_ONLY, dataclass, replace
from typing import Literal

Measures = Literal["us", "uk", "au"]
MeasureKind = Literal["mass", "volume", "count"]


@dataclass(frozen=True)
class Unit:
    """A unit as written in a formula.

    ``kind`` mass, volume or count; ``size`` grams, millilitres or pieces per unit; ``spread`` the
    relative half-width of what one measure of it really holds (0.03 is +-3 %).
    """

    name: str
    kind: MeasureKind
    size: float
    _: KW_ONLY
    spread: float


# name, kind, size in g, ml or pieces, spread, spellings
_TABLE: tuple[tuple[str, MeasureKind, float, float, str], ...] = (
    ("g", "mass", 1, 0.003,
     "g gr gm gms gram grams gramme grammes grammi grammo gramo gramos grs gramm"),
    ("etto", "mass", 100, 0.01, "etto etti hg"),
    ("kg", "mass", 1000, 0.003, "kg kgs kilo kilos kilogram kilograms kilogramm chilo chili"),
    ("mg", "mass", 0.001, 0.02, "mg"),
    ("oz", "mass", 28.349523125, 0.01, "oz ozs ounce ounces once onces onza onzas oncia once"),
    ("lb", "mass", 453.59237, 0.01, "lb lbs pound pounds libra libras"),
    ("ml", "volume", 1, 0.01,
     "ml mls millilitre millilitres milliliter milliliters cc mililitros millilitri"),
    ("cl", "volume", 10, 0.01, "cl"),
    ("dl", "volume", 100, 0.015, "dl"),
    ("l", "volume", 1000, 0.01, "l lt ltr litre litres liter liters litro litros litri"),
    ("cup", "volume", 236.5882365, 0.03,
     "cup cups cupful cupfuls c tasse tasses tassen taza tazas tazza tazze"),
    ("tbsp", "volume", 14.78676478125, 0.06,
     "tbsp tbsps tbs tblsp tablespoon tablespoons tablespoonful tablespoonfuls cas cucchiaio "
     "cucchiai cucharada cucharadas cda cdas el essl esslöffel"),
    ("tsp", "volume", 4.92892159375, 0.08,
     "tsp tsps teaspoon teaspoons teaspoonful teaspoonfuls cac cucchiaino cucchiaini cucharadita "
     "cucharaditas cdta cdtas tl teel teelöffel"),
    ("dessertspoon", "volume", 9.85784318750, 0.08,
     "dessertspoon dessertspoons dsp dessertlöffel"),
    ("fl oz", "volume", 29.5735295625, 0.02, "floz fl.oz"),
    ("gill", "volume", 118.29411825, 0.02, "gill gills"),
    ("jigger", "volume", 44.36, 0.05, "jigger jiggers"),
    ("pint", "volume", 473.176473, 0.02, "pint pints pt pts"),
    ("quart", "volume", 946.352946, 0.02, "quart quarts qt qts"),
    ("gallon", "volume", 3785.411784, 0.02, "gallon gallons gal gals"),
    ("drop", "volume", 0.05, 0.4, "drop drops goutte gouttes tropfen goccia gocce gota gotas"),
    ("dash", "volume", 0.6, 0.5, "dash dashes"),
    ("splash", "volume", 7.0, 0.5, 
     "splash splashes glug glugs trait traits schuss chorro chorros goccio"),
    ("squeeze", "volume", 5.0, 0.5, "squeeze squeezes filet filets spritzer spruzzo chorrito"),
    ("pinch", "mass", 0.4, 0.5,
     "pinch pinches pincée pincées pincees pizzico pizzichi pizzica pizca pizcas prise prisen msp "
     "messerspitze messerspitzen pellizco"),
    ("knob", "mass", 15, 0.4, "knob knobs noix noce nuez"),
    ("capful", "volume", 5, 0.3, "capful capfuls bouchon bouchons tapón tapones tappo tappi"),
    ("shot", "volume", 40, 0.25,
     "shot shots copita copitas bicchierino bicchierini chupito chupitos schnapsglas stamperl"),
    ("small cup", "volume", 50, 0.2, "tazzina tazzine"),
    ("glass", "volume", 200, 0.15,
     "glass glasses bicchiere bicchieri vaso vasos verre verres glas becher"),
    ("pound", "mass", 500, 0.02, "pfund"),
    ("stick", "mass", 113.4, 0.01, "stick sticks"),
    ("piece", "count", 1, 0.0,
     "piece pieces pc pcs ea each whole pod pods bean beans leaf leaves sheet sheets gousse "
     "gousses feuille feuilles foglio fogli hoja hojas stück stücke stk blatt blätter scheibe "
     "scheiben fetta fette tranche tranches rodaja rodajas bacca bacche baccello baccelli vaina "
     "vainas rama ramas palo palos lámina láminas stange stangen schote schoten stecca stecche "
     "unidad unidades"),
    ("can", "count", 1, 0.02,
     "can cans tin tins boîte boîtes boite boites lata latas dose dosen scatola lattina bote "
     "botes"),
    ("pack", "count", 1, 0.05,
     "pack packs package packages packet packets sachet sachets envelope envelopes box boxes "
     "carton cartons bottle "
     "bottles jar jars paquet paquets brique briques bustina bustine confezione confezioni vasetto "
     "sobre sobres paquete paquetes päckchen pck pkg pkgs pkt pkts pckg packung packungen pack "
     "beutel tüte rolle tablette tablettes tableta tabletas tavoletta tavolette tafel tafeln tub "
     "tubs tarrina tarrinas rotolo rouleau tarro pot pots bag bags sleeve sleeves brik bouteille "
     "bottiglia flasche block blocks bar bars brick bricks container containers "
     "vasetti barattolo barattoli briquette briquettes vaschetta vaschette"),
    # Of aroma, as baking shelves sell it.
    ("vial", "volume", 2.0, 0.3,
     "vial vials fiala fiale fialetta fialette fiole fioles fläschchen röhrchen ampolla frasquito"),
)  # fmt: skip


_SPELLINGS: dict[str, Unit] = {
    spelling: Unit(name, kind, size, spread=spread)
    for name, kind, size, spread, spellings in _TABLE
    for spelling in spellings.split()
}
SPELLINGS: frozenset[str] = frozenset(_SPELLINGS) | {"fl oz"}


US_CUP_ML = 236.5882365
TBSP_ML = US_CUP_ML / 16
TSP_ML = US_CUP_ML / 48
# Millilitres of what differs by country. Source: US customary; UK metric cup and spoons as sold,
# imperial fluid measure (Weights and Measures Act 1985); AS 1325 (Australian tablespoon of 20 ml).
_BY_COUNTRY: dict[Measures, dict[str, float]] = {
    "us": {},
    "uk": {"cup": 250, "tbsp": 15, "tsp": 5, "fl oz": 28.4130625, "gill": 142.0653125,
           "pint": 568.26125, "quart": 1136.5225, "gallon": 4546.09},
    "au": {"cup": 250, "tbsp": 20, "tsp": 5, "fl oz": 28.4130625, "gill": 142.0653125,
           "pint": 568.26125, "quart": 1136.5225, "gallon": 4546.09},
}  # fmt: skip


def unit(spelling: str, measures: Measures = "us") -> Unit:
    """The unit written as ``spelling`` (lower case), as big as the kitchen's country has it.

    Raises KeyError for an unknown one.
    """
    bare = spelling.rstrip(".")
    found = _SPELLINGS["floz" if bare.replace(".", "") in ("fl oz", "floz") else bare]
    size = _BY_COUNTRY[measures].get(found.name)
    return replace(found, size=size) if size else found
