import json
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from bellcrumb.errors import CraftError
from bellcrumb.formula.answer import mix_of
from bellcrumb.mix.lines import understand_all
from bellcrumb.travel.reading import read
from bellcrumb.travel.writing import write
from bellcrumb.travel.written import PART_KINDS, Written, WrittenPart
from tests.core.kitchen import US_LARGE

FORMS = ("json", "jsonld", "text", "csv")
LINES = st.sampled_from(
    ["1 l whole milk", "9 yolks", "3/4 cup sugar", "85 g corn starch", "2 lemons, juice and zest",
     "half a stick of butter", "1 1/2 tsp salt", "200 g “red” flour, sifted; twice", "4-5 lemons",
     "1,5 dl panna", "a handful of sloes", "salt to taste"]
)  # fmt: skip
NAMES = st.sampled_from(["Quince cream", "Rye, malt; and hay", "Crème “brûlée”", "No. 7"])
PARTS = st.builds(
    WrittenPart,
    kind=st.sampled_from(PART_KINDS),
    name=st.sampled_from(["Short base", "Malt cream", "Top"]),
    lines=st.lists(LINES, min_size=1, max_size=6),
)


def grams(lines):
    return round(mix_of(understand_all(lines, None, US_LARGE)).mass_g, 6)


class RoundTripTest(unittest.TestCase):
    @settings(max_examples=60)
    @given(NAMES, st.lists(PARTS, min_size=1, max_size=3, unique_by=lambda p: p.name))
    def test_every_format_brings_back_every_line_and_every_gram(self, name, parts):
        for form in FORMS:
            back = read(write([Written(name, parts)], form))
            self.assertEqual([d.name for d in back], [name], form)
            self.assertEqual([p.lines for p in back[0].parts], [p.lines for p in parts], form)
            self.assertEqual([p.kind for p in back[0].parts], [p.kind for p in parts], form)
            self.assertEqual(
                [grams(p.lines) for p in back[0].parts], [grams(p.lines) for p in parts]
            )

    def test_our_own_format_keeps_versions_and_settings(self):
        part = WrittenPart(
            "cream", "Cream", ["1 l milk"], note="second try", egg_grade="EU/UK M",
            family="pastry_cream", settings={"vessel_count": 14},
            earlier=[{"lines": ["1 l milk", "8 yolks"], "note": "first"}],
        )  # fmt: skip
        back = read(write([Written("Bay cream", [part])], "json"))[0].parts[0]
        self.assertEqual(back, part)

    def test_json_ld_is_a_schema_org_graph(self):
        data = json.loads(write([Written("A", [WrittenPart(lines=["1 l milk"])])], "jsonld"))
        self.assertEqual(data["@context"], "https://schema.org")
        self.assertEqual(data["@graph"][0]["recipeIngredient"], ["1 l milk"])


class FromElsewhereTest(unittest.TestCase):
    def test_words_alone_after_a_blank_row_head_the_lines_behind_them(self):
        (found,) = read(
            "Tarte au citron\n\nPâte sucrée\n- 250 g de farine\n- 1 œuf\nsel\n\n"
            "Meringue italienne\n3 blancs\n200 g de sucre\n\nPréparation : 45 min\n"
        )
        self.assertEqual(
            [(p.name, p.kind, len(p.lines)) for p in found.parts],
            [("Pâte sucrée", "crust", 3), ("Meringue italienne", "meringue", 2)],
        )
        self.assertEqual(found.parts[0].note, "Préparation : 45 min")
        self.assertEqual(read("Flan\nIngredientes (6 personas)\n4 huevos")[0].makes, "6 personas")
        (list_,) = read("Flan\n1 l milk\n\nfresh mint\n\n4 eggs")  # blank rows everywhere
        self.assertEqual([len(p.lines) for p in list_.parts], [3])

    def test_a_table_may_say_its_lines_in_one_cell_and_one_a_row(self):
        (found,) = read("dessert,ingredients,line\nFlan,1 l milk|4 eggs,\nFlan,,200 g sugar\n")
        self.assertEqual(found.parts[0].lines, ["1 l milk", "4 eggs", "200 g sugar"])

    def test_a_page_as_it_is_copied_falls_into_its_parts(self):
        for text, makes, parts in (
            (
                "Custard tart\nPrep time: 20 minutes\nServes 8\nIngredients\nFor the pastry\n"
                "▢ 1 ¼ cups (150 g) flour\n▢ ½ cup (113 g) butter\nFor the filling\n"
                "▢ 2 cups cream\n▢ 6 yolks\nUS Customary - Metric\n"
                "1x 2x 3x\nInstructions\n1. Bake.",
                "8",
                [("Pastry", "crust", 2), ("Filling", "filling", 2)],
            ),
            (
                "Puddingtarte\nZutaten für 12 Stück:\nFür den Teig\n200 g Mehl\n100 g Butter\n"
                "Für die Creme:\n500 ml Milch\n40 g Stärke\nZubereitung:\nKneten.",
                "12 Stück",
                [("Teig", "crust", 2), ("Creme", "cream", 2)],
            ),
            (
                "Crème caramel\nPour 6 personnes\nPour le caramel :\n100 g de sucre\n"
                "Pour la crème :\n50 cl de lait\n4 œufs\nPréparation :\nCuire.",
                "6 personnes",
                [("Caramel", "caramel", 1), ("Crème", "cream", 2)],
            ),
            (
                "## Posset\n**Ingredients**\n- 600 ml double cream\n- 150 g sugar\n"
                "**Method**\nBoil.",
                "",
                [("", "filling", 2)],
            ),
            (
                "Lemon pie\nGRAHAM CRUST\n200 g crumbs\nCustard filling\n4 yolks\n"
                "1 can condensed milk",
                "",
                [("GRAHAM CRUST", "crust", 1), ("Custard filling", "cream", 2)],
            ),
            (
                "Purin\n2 eggs\n250 ml milk\n[Caramel]\n60 g sugar\n1 Tbsp water",
                "",
                [("", "filling", 2), ("Caramel", "caramel", 2)],
            ),
            (
                "PIE\nFOR THE FILLING\n1 CUP SUGAR\nSALT\n2 EGGS",
                "",
                [("FILLING", "filling", 3)],
            ),
            ("Cream\n500 g cream\nsalt\nvanilla\n50 g sugar", "", [("", "filling", 4)]),
        ):
            with self.subTest(text):
                (found,) = read(text)
                told = [(p.name, p.kind, len(p.lines)) for p in found.parts]
                self.assertEqual((found.makes, told), (makes, parts))
        (found,) = read("Tart\nPrep time: 20 minutes\n200 g flour\nMethod\nBake.")
        self.assertEqual(found.parts[0].note, "Prep time: 20 minutes\nBake.")

    def test_json_ld_in_its_many_shapes(self):
        recipe = {
            "@type": ["Recipe", "NewsArticle"],
            "name": "Hay &amp; malt",
            "recipeIngredient": ["For the base:", "200 g flour", "Meringue:", "3 whites"],
            "recipeInstructions": [
                {"@type": "HowToSection", "name": "Bake", "itemListElement": [{"text": "Slowly."}]}
            ],
            "recipeYield": ["8", "8 slices"],
        }
        page = f'<html><script type="application/ld+json">{json.dumps(recipe)}</script></html>'
        lists = {"@type": "ItemList", "itemListElement": [{"item": recipe}]}
        for text in (json.dumps(recipe), json.dumps([recipe]), json.dumps(lists), page):
            found = read(text)[0]
            self.assertEqual(found.name, "Hay & malt")
            self.assertEqual([p.kind for p in found.parts], ["crust", "meringue"])
            self.assertEqual(found.parts[0].note, "Bake:\nSlowly.")
            self.assertEqual(found.makes, "8, 8 slices")

    def test_tables_with_other_headers_and_marks(self):
        for text in (
            "Recipe;Qty;Unit;Ingredient\nMalt pot;200;g;sugar\n;3;;yolks\nOther;1;l;milk\n",
            'name,ingredients\nMalt pot,"200 g sugar\n3 yolks"\nOther,1 l milk\n',
            "title\tingredient line\nMalt pot\t200 g sugar\nMalt pot\t3 yolks\nOther\t1 l milk\n",
        ):
            found = read(text)
            self.assertEqual([d.name for d in found], ["Malt pot", "Other"])
            self.assertEqual(found[0].parts[0].lines, ["200 g sugar", "3 yolks"])

    def test_plain_pages_keep_prose_as_the_note(self):
        found = read(
            "Barley custard\nServes: 6\n\nIngredients\n• 1 l milk\n- 6 eggs\n\n"
            "Method\nWarm the milk.\nStrain.\n\n=====\n\n500 g cream\n4 yolks\n"
        )
        self.assertEqual(found[0].parts[0].lines, ["1 l milk", "6 eggs"])
        self.assertEqual((found[0].parts[0].note, found[0].makes), ("Warm the milk.\nStrain.", "6"))
        self.assertEqual(found[1].name, "Without a name")
        self.assertEqual(found[1].parts[0].lines, ["500 g cream", "4 yolks"])

    def test_a_method_without_a_heading_is_no_line_however_hot_it_gets(self):
        for told in ("Bake the shell blind 20 minutes at 170 C.", "Bake at 350 F until it is set.",
                     "Whisk the yolks. Add 50 g of the sugar and whisk on.",
                     "Bring it to the boil. Pour 1 l of it on."):  # fmt: skip
            (made,) = read(f"Tart\n250 g flour\n1 C milk\nwater at 40 C, 100 ml\n{told}")
            self.assertEqual(len(made.parts[0].lines), 3, told)
            self.assertIn(told, made.parts[0].note)

    def test_what_is_no_file_of_recipes_is_refused_in_a_sentence(self):
        for text, word in (
            ("  ", "empty"),
            ('{\n"a": 1,\n]', "not whole JSON: look at line 3."),
            ("[" + "9" * 5000 + "]", "not whole JSON: look at line 1."),
            ("[" * 100_000, "too deep"),
            ("<html></html>", "no recipe"),
            ("[]", "No recipe"),
            ('{"bell_crumb_formulas": 9}', "later"),
        ):
            with self.assertRaises(CraftError) as caught:
                read(text)
            self.assertIn(word, caught.exception.message)
