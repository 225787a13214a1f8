"""schema.org Recipe as JSON-LD: read from a file or a saved page into text, and written from a formula.

Terms are those of schema.org's Recipe, HowTo, HowToSection, HowToStep, HowToDirection, HowToSupply and
QuantitativeValue (recalled from memory). Nothing is fetched: the context is only named.
"""

import html
import json
import re
from collections.abc import Iterator, Mapping
from typing import Any

from lxml.etree import HTMLParser, LxmlError

from pancount.core.base import most
from pancount.core.count.count import Count, Target
from pancount.core.formula.formula import Formula, Line, everything
from pancount.core.formula.reckon import reckon
from pancount.core.formula.stages import main_stage
from pancount.core.formula.ways import in_way, way_of
from pancount.core.method.filled import filled
from pancount.core.method.telling import minutes_words, step_words
from pancount.core.pans.pan import AnyPan, solid
from pancount.core.taking.dough import number_words
from pancount.core.taking.facts import facts
from pancount.formats.durations import iso_duration, minutes_of
from pancount.formats.formula_file import Unreadable

CONTEXT = "https://schema.org"
GRAM = "GRM"
"""UN/CEFACT Recommendation 20 common code for gram, recalled from memory."""
DEEPEST = 40
"""Levels of nesting that are looked through for a recipe."""


class _Scripts:
    """The JSON-LD in a page, as the parser comes past it: no tree is kept of the rest."""

    def __init__(self) -> None:
        self.found: list[list[str]] = []
        self._inside = False

    def start(self, tag: str, attributes: Mapping[str, str]) -> None:
        kind = attributes.get("type", "").split(";")[0].strip().lower()
        self._inside = tag == "script" and kind == "application/ld+json"
        if self._inside:
            self.found.append([])

    def end(self, tag: str) -> None:
        self._inside = False

    def data(self, data: str) -> None:
        if self._inside:
            self.found[-1].append(data)

    def close(self) -> list[str]:
        return ["".join(parts) for parts in self.found]


def scripts(page: str) -> list[str]:
    """Every JSON-LD text in a saved page. Raises `Unreadable` for more tags than a page of a recipe has."""
    if page.count("<") > most.PAGE_TAGS or page.count("=") > most.PAGE_ATTRIBUTES:
        raise Unreadable([((), "This page has far more in it than a recipe. Copy the recipe's text from it and paste that instead.")])
    parser = HTMLParser(target=_Scripts(), huge_tree=True)
    try:
        parser.feed(page)
        found: list[str] = parser.close()
    except LxmlError:
        return []  # nothing in it that is a page
    return found


def _types(node: dict[str, Any]) -> set[str]:
    kind = node.get("@type", node.get("type", ""))
    kinds = kind if isinstance(kind, list) else [kind]
    return {str(k).rsplit("/", 1)[-1].rsplit(":", 1)[-1] for k in kinds}


def _recipes(node: Any, depth: int = 0) -> Iterator[dict[str, Any]]:
    """Every Recipe in a document: itself, in arrays, in @graph, or as what a page is about."""
    if depth > DEEPEST:
        return
    if isinstance(node, list):
        for one in node:
            yield from _recipes(one, depth + 1)
    elif isinstance(node, dict):
        if "Recipe" in _types(node):
            yield node
        else:
            for value in node.values():
                if isinstance(value, dict | list):
                    yield from _recipes(value, depth + 1)


def read_recipe(document: Any) -> str | None:
    """The text of the first recipe in a JSON-LD document, for reading as if it had been pasted; None where there is none."""
    recipe = next(_recipes(document), None)
    if recipe is None:
        return None
    steps = list(_instructions(recipe.get("recipeInstructions")))
    lines = [_plain(recipe.get("name")), _yield(recipe.get("recipeYield", recipe.get("yield"))), ""]
    lines += _ingredients(recipe)
    if steps:
        lines += ["", "Method:", *steps]
    return "\n".join(lines).strip()


OPENS = ("<!--", "<![CDATA[", "-->", "//", "/*", "*/")
CLOSES = ("-->", "]]>", "//", "/*", "*/", "<!--", ";")
"""What pages wrap their JSON in, in any order."""


def read_json(text: str) -> Any:
    """JSON as pages really have it: with raw line breaks in its texts, and wrapped in CDATA or in a comment. Raises `ValueError` or
    `RecursionError` where it is none even so."""
    text = text.strip()
    while mark := next((mark for mark in OPENS if text.startswith(mark)), ""):
        text = text.removeprefix(mark).strip()
    while mark := next((mark for mark in CLOSES if text.endswith(mark)), ""):
        text = text.removesuffix(mark).strip()
    return json.loads(text, strict=False)


def read_page(page: str) -> str:
    """The text of the recipe in a saved page. Raises `Unreadable` where it holds none."""
    found = scripts(page)
    for script in found:
        try:
            text = read_recipe(read_json(script))
        except (ValueError, RecursionError):
            continue
        if text:
            return text
    what = "holds JSON-LD, but no recipe in it" if found else "holds no recipe as JSON-LD"
    raise Unreadable([((), f"This page {what}. Copy the recipe's text from it and paste that instead.")])


def _plain(value: Any) -> str:
    """A value as one line of text: tags and entities of HTML undone, a list's first, a thing's name or text."""
    if isinstance(value, list):
        return _plain(value[0]) if value else ""
    if isinstance(value, dict):
        return _plain(value.get("text") or value.get("name") or value.get("@value") or value.get("value"))
    if value is None or isinstance(value, bool):
        return ""
    text = re.sub(r"<[^<>]*>", " ", html.unescape(str(value)))
    return " ".join("".join(c if c.isprintable() else " " for c in text).split())


def _list(value: Any) -> list[Any]:
    return value if isinstance(value, list) else [] if value is None else [value]


def _yield(value: Any) -> str:
    said = [_plain(v) for v in _list(value)]
    if isinstance(value, dict):
        said = [f"{_plain(value.get('value'))} {_plain(value.get('unitText'))}".strip()]
    text = max(said, key=len, default="")
    return text if not text or not text[:1].isdigit() else f"Makes {text}"


def _ingredients(recipe: dict[str, Any]) -> list[str]:
    """Ingredient lines: by section where the supplies stand in sections, else as they are listed."""
    by_section = list(_supplies(recipe.get("recipeInstructions")))
    if by_section:
        return [line for name, supplies in by_section for line in (f"{name}:", *supplies)]
    lines: list[str] = []
    listed = _list(recipe.get("recipeIngredient", recipe.get("ingredients")))
    for one in listed:
        parts = str(one).splitlines()
        if len(listed) > 1 and not all(part.lstrip()[:1].isnumeric() for part in parts):
            parts = [" ".join(parts)]  # a break inside one of several is only a broken line
        lines += [_supply(one)] if isinstance(one, dict) else map(_plain, parts)
    return [line for line in lines if line]


def _supplies(instructions: Any) -> Iterator[tuple[str, list[str]]]:
    for section in _list(instructions):
        if isinstance(section, dict) and "HowToSection" in _types(section):
            steps = _list(section.get("itemListElement", section.get("steps")))
            supplies = [_supply(s) for step in steps if isinstance(step, dict) for s in _list(step.get("supply"))]
            if supplies:
                yield _plain(section.get("name")) or "Dough", supplies


def _supply(supply: Any) -> str:
    if not isinstance(supply, dict):
        return _plain(supply)
    asked = supply.get("requiredQuantity")
    amount = _plain(asked)
    if isinstance(asked, dict):
        unit = "g" if asked.get("unitCode") == GRAM else _plain(asked.get("unitText"))
        amount = f"{_plain(asked.get('value'))} {unit}".strip()
    note = _plain(supply.get("description"))
    return " ".join(filter(None, [amount, _plain(supply.get("name"))])) + (f", {note}" if note else "")


def _instructions(value: Any, depth: int = 0) -> Iterator[str]:
    """Steps as lines; a section's name stands before its steps."""
    if depth > DEEPEST:
        return
    if isinstance(value, str):
        yield from filter(None, (_plain(line) for line in re.split(r"\n|</(?:p|li|div)>|<br ?/?>", value)))
    for one in value if isinstance(value, list) else [value] if isinstance(value, dict) else []:
        if isinstance(one, dict) and (inner := one.get("itemListElement", one.get("steps"))):
            below = list(_instructions(inner, depth + 1))
            if below and "HowToSection" in _types(one) and (name := _plain(one.get("name"))):
                yield f"{name}."
            yield from below
        elif not isinstance(one, dict) or not one.get("supply"):
            yield from _instructions(_timed(one), depth + 1)


def _timed(step: Any) -> str:
    """A step's text, with how long it takes where only its own field says so."""
    text = _plain(step)
    if not isinstance(step, dict) or not text or any(fact.kind == "time" for fact in facts(text)):
        return text
    told = next((minutes for name in ("timeRequired", "totalTime", "performTime") if (minutes := minutes_of(step.get(name)))), None)
    return f"{text.rstrip('. ')}, {minutes_words(told)}." if told else text


def write_recipe(formula: Formula, count: Count) -> str:
    """A formula as schema.org Recipe, with the count's way as its method. Raises what `reckon` raises."""
    formula = in_way(formula, count.way)
    reckoned = reckon(formula)
    sections: list[dict[str, Any]] = []
    listed: list[str] = []
    weights = [[f.weight_g if f.given != "open" else None for f in s.lines] for s in reckoned.stages]
    weights += [[line.weight_g for line in stage.lines] for stage in formula.beside]
    for stage, grams in zip(everything(formula), weights, strict=True):
        listed += [_listed(line, g) for line, g in zip(stage.lines, grams, strict=True)]
        supplies = [_as_supply(line, g) for line, g in zip(stage.lines, grams, strict=True)]
        step = {"@type": "HowToDirection", "text": f"Weigh out: {stage.name or 'dough'}.", "supply": supplies}
        sections.append({"@type": "HowToSection", "name": stage.name or "Dough", "itemListElement": [step]})
    steps = _as_steps(formula, count.way)
    recipe: dict[str, Any] = {
        "@context": CONTEXT,
        "@type": "Recipe",
        "name": formula.name,
        "recipeIngredient": listed,
        "recipeInstructions": [*sections, *steps],
    }
    if made := _made(count):
        recipe["recipeYield"] = made
    if formula.note:
        recipe["description"] = formula.note
    if formula.styles:
        recipe["keywords"] = ", ".join(formula.styles)
    # Others put it into their pages: no text in it may end the script that it stands in there.
    return json.dumps(recipe, ensure_ascii=False, indent=2).replace("<", "\\u003c") + "\n"


def _as_steps(formula: Formula, key: str) -> list[dict[str, Any]]:
    """The count's way as HowToSteps, in sections where it works on more than one thing; each with how long it is told to take."""
    steps = way_of(formula, key).steps
    in_sections: dict[str, list[dict[str, Any]]] = {}
    for step in steps:
        words, one = step_words(step), filled(step, 0)
        if not words:
            continue
        told: dict[str, Any] = {"@type": "HowToStep", "name": one.kind.label, "text": words}
        if step.lasts and step.lasts.usual_min > 0:  # what its kind stands in for is nothing that was told
            told["timeRequired"] = iso_duration(step.lasts.usual_min)
        in_sections.setdefault(_works_on(formula, step.of), []).append(told)
    if len(in_sections) < 2:
        return [step for some in in_sections.values() for step in some]
    return [{"@type": "HowToSection", "name": name, "itemListElement": some} for name, some in in_sections.items()]


def _works_on(formula: Formula, key: str) -> str:
    named = next((part.name for part in everything(formula) if key and part.key == key), "")
    main = main_stage(formula)
    return named or (formula.stages[main].name if main >= 0 else "") or "Dough"


def _grams(weight_g: float) -> float:
    return round(weight_g, 2)


def _listed(line: Line, weight_g: float | None) -> str:
    amount = "" if weight_g is None else f"{_grams(weight_g):.10g} g "
    return f"{amount}{line.name}{', ' + line.note if line.note else ''}"


def _as_supply(line: Line, weight_g: float | None) -> dict[str, Any]:
    supply: dict[str, Any] = {"@type": "HowToSupply", "name": line.name}
    if weight_g is not None:
        supply["requiredQuantity"] = {"@type": "QuantitativeValue", "value": _grams(weight_g), "unitCode": GRAM}
    return supply | ({"description": line.note} if line.note else {})


def _made(count: Count) -> str:
    """What the count's pins say it makes: "24 pieces", "2 pans of 33 × 23 cm", one target after the other."""
    return "; ".join(filter(None, (_target(target) for target in count.targets)))


def _target(target: Target) -> str:
    said = [f"{target.pins.pieces} pieces"] if target.pins.pieces else []
    if target.pins.pans:
        said.append(f"{target.pins.pans} pans{_size(target.pan) if target.pan else ''}")
    return ", ".join(said)


def _size(pan: AnyPan) -> str:
    """A pan's size as a recipe gives it: of a sloping one, at the top."""
    top, form = solid(pan).top, solid(pan).form
    if form != "rectangle":
        return f" of {number_words(top[0])} cm round"
    if pan.shape == "square":
        return f" of {number_words(top[0])} cm square"
    return f" of {number_words(top[0])} × {number_words(top[1])} cm"
