"""Ways of writing a line that mean another, plainer one: "finely grated zest of 1 orange", "2 T
corn starch", "heaping tablespoon", "one 14 oz can", "butter + a little for the mould".

Each form is a pattern and what it becomes; they are tried once each, in order, on text in lower
case, and cost no more on a line of dashes than on any other.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass

from bellcrumb.quantities.units import SPELLINGS

# A spoon heaped holds half as much again as a level one of a powder; craft, as good as a third.
HEAPED, SCANT, ROUNDED = 1.5, 0.93, 1.25
_N = r"\d+(?:[.,]\d+)?"
_NUM = rf"(?:\d+ \d+/\d+|\d+/\d+|{_N})"
_WORDS = r"one|two|three|four|five|six|an?|un|une|eine?|una|uno|due|dos|deux"
_PARTS = {
    "juice": ("juice", "jus", "succo", "zumo", "jugo", "saft"),
    "zest": ("zest", "zeste", "zestes", "scorza", "buccia", "ralladura", "piel", "cáscara",
             "corteza", "schale", "abrieb", "rind", "peel"),
}  # fmt: skip
PART = {word: part for part, words in _PARTS.items() for word in words}
_GRATED = (
    r"(?:grated|(?:thinly )?pared|strips of|abgeriebene|geriebene|grattugiat[ae]|rallad[ao]"
    r"|râpée?s?|squeezed|frische?r?)"
)
_EGG_PARTS = {
    "egg yolks": ("yolk", "yolks", "jaune", "jaunes", "tuorlo", "tuorli", "yema", "yemas",
                  "eigelb"),
    "egg whites": ("white", "whites", "blanc", "blancs", "albume", "albumi", "clara", "claras",
                   "eiweiß"),
}  # fmt: skip
_EGG_PART = {word: part for part, words in _EGG_PARTS.items() for word in words}
_EGG = r"(?:œufs?|oeufs?|eggs?|uov[ao]|huevos?|eiern?)"
_HOW_FULL = {
    HEAPED: r"heaping|heaped|bombée?s?|bien pleine?s?|colm[oi]|colmad[ao]s?|gehäuft(?:er?)?|geh\.",
    ROUNDED: r"rounded|generous|abbondant[ei]|gut gefüllte?r?",
    SCANT: r"scant|scarsi?|escas[oa]s?|knappe?r?",
    1.0: r"level|rasi?|rases?|raso|ras[ao]s?|gestrichene?r?|gestr\.|gestr",
}
_FULL = re.compile("|".join(f"(?P<f{n}>{words})" for n, words in enumerate(_HOW_FULL.values())))
_FULL_BY = dict(zip((f"f{n}" for n in range(len(_HOW_FULL))), _HOW_FULL, strict=True))
_UNITS = "|".join(sorted(map(re.escape, SPELLINGS), key=len, reverse=True))
_FOR_WHAT = (
    r"dorure|dorer|la finition|finir|le moule|moules?|ramequins?|le caramel|caraméliser"
    r"|saupoudrer|le fond|la pâte"
    r"|beurrer|servir"
    r"|spennellare|la teglia|lo stampo|il caramello|caramellare|spolverare|decorare|guarnire"
    r"|servire|la base|imburrare|ungere"
    r"|pintar|el molde|el caramelo|caramelizar|espolvorear|decorar|adornar|untar|engrasar"
    r"|bestreichen|bestäuben|bestreuen|dekorieren|garnieren|servieren|einfetten"
    r"|(?:die |den )?(?:form|karamell|boden|teig)"
    r"|glazing|brushing|egg wash|tins?|tops?|topping|caramel|crust|base|pan|dish|dusting|sprinkling"
    r"|serving|garnish(?:ing)?|decorating|decoration|caramelizing|caramelising|burning"
)
_UNIT_FIRST = re.compile(rf"^(?:{_UNITS})\b")
_PACKED = (
    r"(?:can|tin|package|pkg|pkt|pack|packet|carton|container|jar|box|bag|brick|tub|block|bar|envelope"
    r"|sachet)(?:e?s)?"
)
_WEIGHT = r"fl oz|oz|ounces?|g|grams?|ml|lb|pounds?"


@dataclass(frozen=True)
class Plain:
    """A line as it could have been written: ``times`` is what its spoons or cups are of level ones
    (1: nothing was said), ``note`` what was read into it."""

    text: str
    times: float = 1.0
    note: str = ""


def _decimal(number: str) -> float:
    return float(number.replace(",", "."))


def _of_fruit(found: re.Match[str]) -> str:
    count, fruit = found.group("n").rstrip("'’"), found.group("fruit")
    if "halb" in count or "demi" in count:
        count = "1/2"
    bare, *brackets = fruit.split(" (")  # "juice of 2 lemons (80 g)"
    said = f" ({brackets[0]}" if brackets else ""
    return f"{count} {bare} {PART[found.group('part')]}{said}"


def _metric_of(found: re.Match[str]) -> str:
    """Of a weight said twice in brackets, the one in grams, or in millilitres."""
    both = found.group(1), found.group(2)
    metric = next((b for b in both if re.search(r"\d ?k?gr?$", b)), None)
    return f"({metric or next((b for b in both if re.search(r'[mcd]?l$', b)), both[0])})"


_FORMS: tuple[tuple[re.Pattern[str], str | Callable[[re.Match[str]], str]], ...] = (
    # "at least 70 % cocoa" is told by the 70
    (re.compile(r"\b(?:at least|minimum|min\.?|mind(?:estens|\.)?|au (?:moins|minimum)|almeno"
                r"|al menos|m[íi]nimo) (?=\d{2}(?:[.,]\d)? ?(?:%|per ?cent))"), ""),
    # "butter + a little for the mould", "flour, plus extra for dusting"
    (re.compile(r",?\s(?:\+|plus|et|und|e|y|and)\s(?:un peu|more|extra|a little|some|etwas|un po'?"
                r"|un poco|mehr)\b.*$"), ""),
    # "1-1/3 cups": one and a third
    (re.compile(r"^(\d{1,2})-(?=\d/\d)"), r"\1 "),
    # "4 sticks rhubarb": only butter comes in sticks of a weight
    (re.compile(rf"^({_NUM}|{_WORDS}) sticks? (?:of )?(?=rhubarb|cinnamon|celery|lemongrass)"),
     r"\1 "),
    # "n. 3 uova", "3 cucchiai da tavola di zucchero", "1 etto e mezzo di", "butter at room temp"
    (re.compile(r"(?:^|(?<= ))n[.°º] ?(?=\d)"), ""),
    (re.compile(r"^(\S+ cucchia\w+) da (?:tavola|minestra|zuppa|cucina|dessert|tè|the|caffè)\b"),
     r"\1"),
    (re.compile(r"^(?:1|un) etto e mezzo\b"), "150 g"),
    (re.compile(r",? (?:a temperatura ambiente?|à température ambiante|(?:bei )?zimmertemperatur"
                r"|(?:at )?room temp(?:erature)?\.?)\b"), ""),
    (re.compile(r"\b(copitas?|chupitos?|chorros?|chorrito|ml|cl)( de)? anís$"),
     r"\1\2 licor de anís"),
    # "(8 oz/227 g)", "(200 g, 7 oz)", "(16 fl. oz./480 ml)"
    (re.compile(rf"\(({_NUM} ?(?:fl\.? ?)?[a-z]+)\.? ?[/,;|] ?({_NUM} ?(?:fl\.? ?)?[a-z]+)\.?\)"),
     _metric_of),
    # "1 lg. egg", "big pinch of salt", "1 3-inch cinnamon stick", "paste or extract"
    (re.compile(r"\bl(?:rg|g|ge)\.? (?=eggs?|yolks?|whites?)"), "large "),
    (re.compile(r"\bmed\.? (?=eggs?|yolks?|whites?)"), "medium "),
    (re.compile(r"\bsm\.? (?=eggs?|yolks?|whites?)"), "small "),
    (re.compile(r"^(?:big|large|good|generous|small|tiny) (?=pinch\b)"), ""),
    (re.compile(r"\b\d+(?:[.,]\d+)?[- ]?(?:inch|in\.|cm)[- ](?=cinnamon|vanilla)"), ""),
    (re.compile(r" or extract$"), ""),
    (re.compile(r"^(?:an? |one |1 )?(?:unbaked |frozen )?\d+[- ]?"
                r"(?:inch|in\.|cm)[- ](?:deep[- ]dish )?"
                r"(?=.*\b(?:pie|tart)? ?(?:crust|shell|case))"), "1 "),
    (re.compile(r",? (?:sin la parte blanca|without (?:the )?(?:white )?pith|ohne (?:das )?weiße"
                r"|sans (?:la )?(?:partie|peau) blanche|senza (?:la )?parte bianca)\b"), ""),
    (re.compile(r"\bchoc\b"), "chocolate"),
    # "zucchero per la meringa", "beurre pour le moule", "Zucker für den Karamell"
    (re.compile(r"(?<=\w),? (?:for the|pour (?:la|les?)|pour l'|per (?:la|il|lo|i|gli|le)|per l'"
                r"|para (?:el|la|los|las)|für (?:den|die|das)) ?\w+(?: \w+)?$"), ""),
    # "about 200 ml cream", "a good pinch of salt", "1.000 g Quark", "1/2 a lemon"
    (re.compile(r"^(?:about|approx\.?|approximately|roughly|around|nearly|just (?:over|under)"
                r"|ca\.?|circa|environ|env\.|etwa|unos|unas) (?=\d)"), ""),
    (re.compile(rf"^({_NUM}|{_WORDS}) (?:good|generous|big|large|small|tiny|healthy|bonne|grosse"
                r"|petite|gute|kleine|große|bella|buena) "
                r"(?=(?:pinch|dash|splash|glug|knob|squeeze|pincée|prise|pizzico|pizca)\b)"),
     r"\1 "),
    # "1.000 g Quark" is a kilo; "150.000 g" is 150 g out of a machine, no kitchen weighs 150 kg
    (re.compile(r"^([1-9])\.(\d{3}) ?(g|ml)\b"), r"\1\2 \3"),
    (re.compile(rf"^({_NUM}) an? (?=[^\W\d]{{3}})"), r"\1 "),
    # "3 eggs (yolks only)", "4 œufs, les jaunes seulement"
    (re.compile(rf"^({_NUM}|{_WORDS}) (?:[^\W\d]+ )?{_EGG} ?[,(] ?(?:only |just |nur |solo |sólo )?"
                rf"(?:the |les? |los |las |gli |i |die )?({'|'.join(_EGG_PART)})"
                r"(?: (?:only|seulement|uniquement))?\)?$"),
     lambda found: f"{found.group(1)} {_EGG_PART[found.group(2)]}"),
    # "150 g de sucre dont 50 g pour le caramel", "1 vanilla bean or 2 tsp extract"
    (re.compile(r",? (?:dont|davon|of which|di cui|de los cuales) .*$"), ""),
    (re.compile(rf"^((?:{_NUM}|{_WORDS}) \D+?),? (?:or|ou|oder|o|oppure) "
                rf"(?:{_NUM}|{_WORDS}) [^\W\d].*$"), r"\1"),
    # "1 EL Mehl (gehäuft)", "1 tbsp sugar, heaped"
    (re.compile(rf"^(.*?)[ ,(]+({'|'.join(_HOW_FULL.values())})\)?$"), r"\2 \1"),
    # "1 boîte de 400 g de lait concentré", "2 feuilles de gélatine de 2 g"
    (re.compile(rf"^({_NUM}|{_WORDS}) ([^\W\d]+) (?:de|di|da|d[’']|à|mit|zu|of) ({_NUM}) ?"
                r"(g|kg|ml|cl|l) (?:de |di |d[’'])?(?=[^\W\d])"), r"\1 \2 (\3 \4 each) "),
    (re.compile(rf"^((?:{_NUM}|{_WORDS}) \D+?),? (?:de|da|di|à|zu|of) ({_NUM}) ?(g|kg|ml|cl|l)$"),
     r"\1 (\2 \3 each)"),
    # "1 petit pot de crème (20 cl)": its size is said
    (re.compile(rf"^({_N}|{_WORDS}) (?:petite?|grande?|kleine[rs]?|große[rs]?|small|piccol[ao]"
                rf"|pequeñ[ao]) (?=(?:{_UNITS})\b.*\(\d)"), r"\1 "),
    # "1 x 397 g tin caramel" is boiled condensed milk
    (re.compile(r"\b(tins?|cans?) (?:of )?caramel$"), r"\1 dulce de leche"),
    # "1 Tasse Espresso" is no cup
    (re.compile(r"\b(?:tassen?|tasses?) (?:d[’'])?(?=espresso)"), "tazzina "),
    # "1 œuf pour la dorure", "1 uovo per spennellare", "6 cucharadas de azúcar para el caramelo"
    (re.compile(r",?\s(?:pour|per|para|zum|für|for|to)(?: the| la| les)? "
                rf"(?:{_FOR_WHAT})\s*$"), ""),
    # "2 blancs montés en neige", "2 claras a punto de nieve", "2 Eiweiß, steif geschlagen"
    (re.compile(r",?\s(?:(?:mont[ée]e?s?|battue?s?|fouett[ée]e?s?) en neige(?: (?:bien )?fermes?)?"
                r"|(?:montad[ao]s |batid[ao]s )?a punto de nieve|montat[aei] a neve(?: ferm[aei])?"
                r"|(?:zu schnee|steif) geschlagen)\s*$"), ""),
    # "une mangue bien mûre", "beurre en dés", "burro a cubetti"
    (re.compile(r"\s(?:bien mûre?s?|bien maduros?|bien maduras?|ben matur[aeio])\b"), ""),
    (re.compile(r",?\s(?:en (?:petits )?(?:dés|morceaux|cubes|cubos|dados|trozos)"
                r"|a (?:dadini|cubetti|pezzetti|pezzi)"
                r"|in (?:kleinen )?(?:würfeln|stücken|stückchen|cubes|pieces|chunks))\b"), ""),
    # "un citron jaune" is a lemon
    (re.compile(r"\b(citrons?) jaunes?\b"), r"\1"),
    # "3x eggs", "eggs x 3", "2 dozen gingersnaps", "milk - 500 ml"
    (re.compile(r"^(\d+) ?[x×] ?(?=[^\W\d]{3})"), r"\1 "),
    (re.compile(r"^(\D+?) [x×] ?(\d+)$"), r"\2 \1"),
    (re.compile(r"^(\d+) (?:dozen|douzaines?|docenas?|dozzin[ae]|dutzend)\b(?: of| de| di)?"),
     lambda found: f"{12 * int(found.group(1))}"),
    (re.compile(r"^(\D*[^\W\d]) - (?=\d)"), r"\1: "),
    # "1 cup/240 ml milk", "100 g / 7 tbsp butter": the weight or the metric volume counts
    (re.compile(rf"^({_NUM} ?(?:{_UNITS}))\.? ?[/|] ?({_NUM}) ?(g|kg|ml|dl|cl|l)(?= )"),
     r"\1 (\2 \3)"),
    (re.compile(rf"^({_NUM} ?(?:g|kg|ml|dl|cl|l)) ?[/|] ?{_NUM} ?(?:{_UNITS})\b\.?"), r"\1"),
    # "3/4 de taza de agua", "1 half-pint", "1 stick plus 2 tbsp butter"
    (re.compile(rf"^({_NUM}) (?:de |di |d['’]une? |of an? |einer? )(?=(?:{_UNITS})\b)"), r"\1 "),
    (re.compile(r"^(?:1|an?|one) half[- ]pints?\b"), "1/2 pint"),
    (re.compile(rf"^({_N}) sticks? (?:plus|\+|and) ({_N}) (?:tbsps?|tablespoons?)\b"),
     lambda found: f"{8 * _decimal(found.group(1)) + _decimal(found.group(2)):g} tbsp"),
    # "1/3 cup sugar plus 2 teaspoons"
    (re.compile(rf"^({_NUM} (?:{_UNITS})\b\.?) (?!plus)(\D+?),? (?:plus|\+|et|più|más|und) "
                rf"({_NUM} (?:{_UNITS}))$"), r"\1 plus \3 \2"),
    # "zest of 2 limes, plus 60 ml juice": what is measured counts
    (re.compile(rf"^(?:the )?zest of (\d+|one|two|an?) ([^\W\d]+?)s?,? (?:plus|and|\+|&) "
                rf"({_NUM} ?(?:{_UNITS})) (?:of )?(?:the |its |their )?juice$"), r"\3 \2 juice"),
    # "la polpa di 3 frutti della passione", "pulp of 2 mangoes"
    (re.compile(r"^(?:the |la |das |le )?(?:polpa|pulp|pulpe|pulpa|fruchtfleisch) "
                r"(?:di |of |de |d'|von )(?=\d)"), ""),
    # "a good grating of nutmeg"
    (re.compile(r"^an? (?:good |generous |little )?grating of "), "1 pinch "),
    # "1 gousse de vanille de Madagascar fendue et grattée", "pruneaux d'Agen", "2 poires williams"
    (re.compile(r",? (?:fendue?s?|ouverte?s?)(?: en deux)? et (?:grattée?s?|égrainée?s?)\b"), ""),
    (re.compile(r" (?:(?:de|del|von|aus) madagas[ck]ar|de tahiti|de la réunion|d'agen"
                r"|aus dem kühlregal)\b"), ""),
    (re.compile(r"\b(vanille|vaniglia|vainilla|vanilla) bourbon\b"), r"\1"),
    (re.compile(r"\b(mangues?|bananes?|poires?|pêches?|abricots?|figues?|prunes?) mûre?s?\b"),
     r"\1"),
    (re.compile(r"^(\d+) (poires?|pere|peras) williams?$"), r"\1 \2"),
    # "1 citron non traité (zeste et jus)"
    (re.compile(r" (?:non traitée?s?|biologic[oahe]+|unwaxed|unbehandelte?r?)(?= [(,]|$)"), ""),
    # "2 lemons (100 ml juice)", "4 citrons (150 ml de jus)": what was pressed is what counts
    (re.compile(rf"^{_N} (?P<fruit>[^\d(),]{{3,30}}?)(?: \(|, )"
                r"(?:(?:about|approx|ca|etwa|environ|env|circa|to give|for)\.? )?"
                rf"(?P<n>{_N}) ?(?P<u>ml|cl|dl|g) ?(?:of |de |di |d['’] ?)?"
                rf"(?:{'|'.join(_PARTS['juice'])})\)?$"), r"\g<n> \g<u> \g<fruit> juice"),
    # "1 orange (zest only)", "2 citrons, le jus seulement", "1 Zitrone (nur der Saft)"
    (re.compile(rf"[ ,(]+(?:the |le )?({'|'.join(PART)}) (?:only|seulement|uniquement)\)?$"),
     r", \1"),
    (re.compile(r"[ ,(]+(?:only|just|nur|solo|sólo|solamente|uniquement|seulement) "
                rf"(?:the |le |il |el |la |die |der |den )?({'|'.join(PART)})\)?$"), r", \1"),
    (re.compile(rf" \((?:la|el|le|les|il|die|der|den) ({'|'.join(PART)})\)$"), r", \1"),
    # "4 hojas de gelatina neutra" is plain gelatine, no glaze
    (re.compile(r"^(.*\b(?:hojas?|l[áa]minas?|sobres?)(?: de)?) gelatina neutra\b"),
     r"\1 gelatina"),
    (re.compile(r"\b(?:bio|öko)-(?=[^\W\d])"), ""),
    # "200 bloom gelatine"
    (re.compile(r"\b\d{3} ?bloom\b"), ""),
    # "one 14 oz can of", "two 8-oz packages"
    (re.compile(rf"^({_N}|{_WORDS}) ({_N})[- ]?({_WEIGHT})\.?[- ]({_PACKED})\b"),
     r"\1 \4 (\2 \3 each)"),
    (re.compile(r"\b(oz|g|ml|lb)s?\.? (ounces?|grams?|pounds?)\b"), r"\1"),
    # "1 (15-ounce) can pumpkin"
    (re.compile(rf"^({_N}|{_WORDS}) \(({_N})[- ]?({_WEIGHT})\.?\)[- ]?({_PACKED})\b"),
     r"\1 \4 (\2 \3 each)"),
    # "15-oz can pumpkin purée": one of them
    (re.compile(rf"^({_N})-({_WEIGHT})\.?[- ]({_PACKED})\b"), r"1 \3 (\1 \2 each)"),
    # "1 box vanilla pudding", "1 package (3.4 oz) chocolate pudding" is its powder
    (re.compile(rf"^({_N}|{_WORDS}) (box|package|packet|pkg|pkt|envelope|sachet)((?:e?s)? "
                r"(?:\([^()]{1,20}\) )?)(?:of )?((?:vanilla|chocolate) )pudding"
                r"(?! (?:mix|powder))"),
     r"\1 \2\3\4pudding powder"),
    # "3 bags earl grey tea", "2 squares unsweetened chocolate" (an ounce each)
    (re.compile(rf"^({_N}|{_WORDS}) bags? (?:of )?(.*\btea)$"), r"\1 \2 bags"),
    (re.compile(rf"^({_NUM}|{_WORDS}) squares? (?:of )?(?=.*\bchocolate\b)"), r"\1 oz "),
    # "une noisette de beurre"
    (re.compile(r"^(?:une |1 )noisette de (?=beurre)"), "8 g "),
    # "Mark von 1 Vanilleschote", "les graines d'une gousse", "i semi di mezza bacca"
    (re.compile(r"^(?:das |les |the |i |las |los )?(?:mark|graines|seeds|semillas|semi) "
                r"(?:scraped )?(?:von |of |from |de |di |d'|)"
                r"(?P<n>\d+(?:/\d+)?|eine[rs]?|une?|half an?|an?|un'?|una|mezz[oa]|medi[oa]) "),
     r"\g<n> "),
    # "1 demi gousse"
    (re.compile(r"^(?:1|une?|ein|eine[mnrs]?) (?:demi|demie|halbe[mnrs]?|mezza|media)[- ]"),
     "1/2 "),
    # "un cuarto de litro de nata", "ein Viertelliter Sahne", "tre quarti di litro di latte"
    (re.compile(r"^(?:1|un|ein|eine[nr]?) (?:quart d['’e]|cuarto de|quarto di|viertel)[ -]?"
                r"(?=litr|liter)"), "1/4 "),
    (re.compile(r"^(?:3|trois|tres|tre|drei) (?:quarts de|cuartos de|quarti di|viertel)[ -]?"
                r"(?=litr|liter)"), "3/4 "),
    # "une pointe de couteau de vanille", "una punta di coltello di"
    (re.compile(r"^(?:une?|una|1) (?:pointe de couteau|punta (?:di coltello|de cuchillo))\b"),
     "1 pinch"),
    # "a few drops of", "quelques gouttes", "einige tropfen"
    (re.compile(r"^(?:a few|few|quelques|einige|ein paar|alcune|qualche|unas?|algunas)"
                r" (?:drops?|gouttes?|tropfen|gocc[ei]a?|gotas?)\b"), "5 drops"),
    # "finely grated zest of 1 orange", "scorza grattugiata di un'arancia", "Saft von 2 Orangen"
    (re.compile(r"^(?:the |les? |la |il |el |lo |die |der |das )?"
                r"(?:(?:finely|freshly|fein|coarsely|frisch) )?"
                rf"(?:{_GRATED} )?(?P<part>{'|'.join(PART)})(?: {_GRATED})? "
                r"(?:of |from |de |di |d'|du |von |dell'|della |)"
                r"(?P<n>\d+(?:[ /]\d+)*(?:/\d+)?|(?:eine[rs]? )?halben?|(?:un[e']? )?demi(?=[- ])"
                r"|half an?|un'|uno|una|une?|an?|eine[rs]?|deux|due"
                r"|dos|zwei|mezz[oa]|medi[oa]|[½¼])\s?-?(?P<fruit>[^\W\d].*)$"), _of_fruit),
    # "le blanc de 3 œufs", "the yolks of 4 eggs"
    (re.compile(rf"^(?:the |les? |las? |los |i |gli |das )?(?P<part>{'|'.join(_EGG_PART)}) "
                rf"(?:of |from |de |d'|di |von )(?P<n>\S+(?: large| medium| small)?) {_EGG}"),
     lambda found: f"{found.group('n')} {_EGG_PART[found.group('part')]}"),
    # "chocolate (64%-70%)", "60-70 % chocolate": the middle
    (re.compile(r"\b(\d{2}) ?%? ?(?:-|to) ?(\d{2}) ?%"),
     lambda found: f"{(int(found.group(1)) + int(found.group(2))) // 2}%"),
    # "chocolate (70 %)"
    (re.compile(r"\((?:min\.? ?|mind\. ?)?(\d{2}(?:[.,]\d)?) ?%[^)]{0,20}\)"), r" \1%"),
)  # fmt: skip
_BIG_SPOON = re.compile(r"(?<=[\d½¼¾⅓⅔]) ?T\b\.?(?! ?-)")
_SMALL_SPOON = re.compile(r"(?<=[\d½¼¾⅓⅔]) ?t\b\.?(?= )")


def spoons_in_capitals(text: str) -> str:
    """ "2 T" is two tablespoons and "2 t" two teaspoons, which lower case would hide."""
    return _SMALL_SPOON.sub(" tsp", _BIG_SPOON.sub(" tbsp", text))


_MIXED_WITH = re.compile(
    r",? (?:bloomed|soaked|softened|dissolved|mixed|whisked|stirred|slaked|blended) "
    rf"(?:in|into|with) (?=(?:{_NUM}|{_WORDS}) ?(?:{_UNITS})\b)"
)


def mixed_with(text: str) -> str:
    """ "gelatin bloomed in 2 tbsp water" is gelatin and water."""
    return _MIXED_WITH.sub(" plus ", text)


# "1/4 tsp each cinnamon and nutmeg", "200 g each of cream, milk and sugar", "je 100 g Butter und
# Zucker"
_HOW_MUCH = rf"(?:{_NUM}|{_WORDS}) ?(?:(?:{_UNITS})\b\.?)?"
_EACH = re.compile(
    rf"^(?:(?P<how>{_HOW_MUCH}) ?each(?: of)?|(?:je|jeweils) (?P<je>{_HOW_MUCH})) "
    r"(?P<things>[^\d()]+)$"
)
_AND = re.compile(r", ?(?:and |und |& )?| (?:and|und|&) ")


def shared_amount(text: str) -> str:
    """ "1 tsp each cinnamon and nutmeg" is one of each, said one after the other."""
    found = _EACH.match(text)
    things = [thing for thing in _AND.split(found["things"]) if thing] if found else []
    if not found or len(things) < 2:
        return text
    return " plus ".join(f"{(found['how'] or found['je']).strip()} {thing}" for thing in things)


def plainly(text: str) -> Plain:
    """A line (in lower case) the plain way."""
    for pattern, becomes in _FORMS:
        text = pattern.sub(becomes, text)
    text = " ".join(text.split())
    full = re.search(rf"(?:^|(?<=\s))(?:{_FULL.pattern})(?=\s)", text)
    if not full or full.start() > 24:
        return Plain(text)
    rest = " ".join((text[: full.start()] + text[full.end() :]).split())
    if _UNIT_FIRST.match(rest):  # "heaping tablespoon": one of them
        rest = f"1 {rest}"
    times = _FULL_BY[str(full.lastgroup)]
    return Plain(rest, times, "" if times == 1.0 else f"{full.group().strip()}: × {times:g}")
