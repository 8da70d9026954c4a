"""Names as they are looked up: folded, singular, without what says nothing of what it is."""

import re
import unicodedata

_PERCENT = re.compile(
    r"\b(?:(?:a|al|de|of|mit|with)\s+)?(\d{1,3})(?:[.,]\d+)?\s*"
    r"(?:%|per ?cent\b|percent\b|prozent\b)"
    r"(?:\s*(?:de |di |of )?(?:min\.? )?(?:cocoa solids|cocoa|cacao|kakaoanteil|kakao|fat|"
    r"fettgehalt|fett(?: i\.? ?tr\b\.?)?|f\.? ?i\.? ?tr\b\.?|grassi|grasa|m\.? ?g)\b\.?)?"
)


def fold(text: str) -> str:
    """``text`` for matching: no accents, no punctuation, plain spaces, lower case."""
    bare = unicodedata.normalize("NFKD", text.lower().replace("œ", "oe").replace("ß", "ss"))
    bare = "".join(ch for ch in bare if not unicodedata.combining(ch))
    bare = _PERCENT.sub(lambda found: f" {found.group(1)}% ", bare)
    return re.sub(r"[^a-z0-9%]+", " ", bare).strip()


_IRREGULAR = {"leaves": "leaf", "halves": "half", "loaves": "loaf"}


def _singular(word: str) -> str:
    if word in _IRREGULAR:
        return _IRREGULAR[word]
    if len(word) > 4 and word.endswith("ies"):
        return word[:-3] + "y"
    if len(word) > 3 and word.endswith("es") and word[-3] in "sxzh":
        return word[:-2]
    if len(word) > 2 and word.endswith("s") and not word.endswith("ss"):
        return word[:-1]
    return word


def stem(text: str) -> str:
    """A name as it is looked up: singular words, a percentage always last."""
    words = [_singular(word) for word in fold(text).split()]
    shares = [word for word in words if word.endswith("%")]
    return " ".join([word for word in words if not word.endswith("%")] + shares)


IGNORED = frozenset(
    "fresh cold hot warm soft softened melted sifted sieved unsalted good quality chopped fine "
    "finely grated ground large medium small free range organic pure plain strong strained room "
    "temperature at the split scraped separated beaten lightly packed level heaped heaping scant "
    "and for in optional cubed diced ripe peeled toasted extra about approx more your best "
    "raw shelled local jumbo xl whipped whisked stiff stiffly peak peaks fouettee fouette montee "
    "montees montata montati montada geschlagen geschlagene aufgeschlagen steif boiled poached "
    "cooked stewed drained crushed divided sliced skinned freshly pitted stoned halved quartered "
    "hulled rinsed mashed tightly loosely thinly roughly coarsely bio frais fraiche fraiches "
    "fendue fendu frozen surgelee surgelees surgele surgeles congele congelado congelada "
    "surgelati surgelato tk gefroren tiefgekuhlt tiefgekuhlte mondee mondees emondees firm "
    "gestrichen cooled lengthwise squeezed bruised thawed overnight juiced weich weiche weicher "
    "zerlassen zerlassene flussige flussig gekuhlt gut gemahlen gemahlene gemahlener egoutte "
    "egouttee egouttes egouttees escurrido escurrida sgocciolato sgocciolata abgetropft "
    "abgetropfte "
    "freddo fredda freddi fredde maduro madura maduros maduras gehobelt gehobelte rapee rapees "
    "crudo cruda crudos crudas abierta abierto batida batidas lesse lesso "
    "scalded unrefined reserved "
    "ramolli mou fondu fondue tiede tamisee hache hachee emiette concasse ammorbidito fuso fusa "
    "setacciata tritato tritata spezzettato derretida derretido ablandada fria picado picada "
    "troceado tamizada batidos gehackt gehackte geschmolzen geschmolzene kalte frische zimmerwarme "
    "zimmerwarm gesiebt chilled trimmed pommade froide froides froid bien uht denoyaute denoyautee "
    "denoyautes denoyautees rassi rassie scolata scolato ben ammollata ammollato ammollati "
    "lattina firmly millefiori getrennt geputzt gerieben grattee grattees derouler "
    "prete rolled topped tailed shaken ready made meyer bramley bashed stale up "
    "warmed smooth presse pressee frigo fresche pomada tritati tritate trituradas triturados "
    "ausgekratzt gepresst frisch lengthways broken eingeweicht eingeweichte zerbroselt "
    "zerbroselte zerkrumelt slightly gently med mini knotted sechee sechees golden prepared "
    "homemade creamy ripened high coupe coupee coupes coupees "
    "strands stirred well only dust to frullata frullato".split()
)
STEMMED_IGNORED = frozenset(_singular(word) for word in IGNORED)
