"""A page's lines as they are read: signs and shortened words written out, rows of a table as lines. The text itself stays as it was.

    w/ → with · H2O → water · br. sug. → brown sugar · 🞎, ✅, [x] gone · "Salt<tab>20<tab>2" under "g, %" → "Salt | 20 g | 2 %"
"""

import re
import unicodedata
from collections.abc import Sequence
from functools import cache, lru_cache

from pancount.core.base.datafiles import entries
from pancount.core.taking.tokens import LONGEST_LINE

BULLET = re.compile(r"^\s*(?:\[\s*[x✓✔]?\s*\]|\(\s*[x✓✔]\s*\)|[☐☑☒✅⬜⬛▪▫■□▢❑❏➤→►▶»·•◦‣●○✓✔❍*+-]\s*(?=\S)|\\?-\s)+\s*", re.IGNORECASE)
"""What stands before a line of a list: bullets, boxes to tick, arrows."""
_SIGNS: tuple[tuple[re.Pattern[str], str], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), by)
    for pattern, by in (
        (r"(?<![\w/])w/o\b", "without "),
        (r"(?<![\w/])w/\s?", "with "),
        (r"\bh(?:2|₂)o\b", "water"),
        (BULLET.pattern, ""),
        (r"^\s*\d{1,2}[.)]\s+(?=[\d½¼¾⅓⅔⅛])", ""),
        (r"(?<=\S)\s{3,}(?=[\d½¼¾⅓⅔⅛]+[^%]*[^\W\d_])", "; "),
        (r"\(\s*[\d.,–-]+\s*%\s*(?:protein|eiweiß|fat|fett|i\.?\s?tr)[^)]*\)", " "),
        (r"\s*[|¦]\s*|\s*(?:\.\s?){3,}\s*|\s*…+\s*(?=[\d½¼¾])", " | "),
    )
)
"""Signs, and what they are read as: a line's bullets and boxes, two columns side by side, the dots that lead to a number."""
_WARM = re.compile(r"\(\s*(?:[5-9]|\d{2,3})\s*[CF]\s*\)")
"""How warm something is, in brackets: "water (18 C)" are no 18 cups."""
_COLUMNS = re.compile(r"\t+|\s{3,}")
_SLASHED = re.compile(r"\s/\s")


@cache
def _shortened() -> tuple[re.Pattern[str], dict[str, str]]:
    words: dict[str, dict[str, str]] = entries(__name__, "words", "short.toml")
    always, stopped = ("|".join(map(re.escape, sorted(words[key], key=len, reverse=True))) for key in ("short", "stopped"))
    return re.compile(rf"(?<![\w'])(?:({always})\b\.?|({stopped})\.)(?!\w)", re.IGNORECASE), words["short"] | words["stopped"]


@lru_cache(maxsize=1_000)  # while a page is typed, all its lines but one stay as they were
def plain(text: str) -> str:
    """One line as it is read.

    >>> plain("[x] 1/3 c. br. sug., pkd. w/ H2O")
    '1/3 c. brown sugar, packed with water'
    """
    text = text[:LONGEST_LINE].replace("\t", "   ")
    if len(_SLASHED.findall(text)) > 1:
        text = _SLASHED.sub("; ", text)  # "flour 3 c / milk 1 c / salt 1 t"
    text = _without_pictures(text)
    for pattern, by in _SIGNS:
        text = pattern.sub(by, text)
    text = _WARM.sub(" ", text)
    shortened, words = _shortened()
    return shortened.sub(lambda found: words[found[0].rstrip(".").lower()], text).strip()


_SENTENCE = re.compile(r"[.!?;](?=\s|$)|\n")
_STOPPED = re.compile(r"(?:^|[\s\d(½¼¾⅓⅔])(?:c|t|g|lbs?|oz|qts?|pts?|pkgs?|pkt|tsps?|tbsps?|tbs|doz|min|mins|sec|hrs?|ca|std|st|pck|msp|el|tl|approx|no|fl)$", re.IGNORECASE)
"""Short words whose stop ends no sentence."""


_DEGREES = re.compile(r"(?:\d\d|°|@\s?\d)\s?°?[CF]$")
"""And what only looks like one: the stop of "98C. Wait." ends one."""


def sentences(text: str) -> list[str]:
    """A text's sentences; the stop of "2 oz. of salt" or "1 c. milk" ends none.

    >>> sentences("To 7 lbs. of flour take 2 oz. of salt. Rub it in!")
    ['To 7 lbs. of flour take 2 oz. of salt', 'Rub it in']
    """
    return [part for begin, end in sentence_spans(text) if (part := text[begin:end].strip())]


def sentence_spans(text: str) -> list[tuple[int, int]]:
    """From where to where each of a text's sentences stands, its stop left out."""
    found, begin = [], 0
    for end in _SENTENCE.finditer(text):
        before = text[max(0, end.start() - 8) : end.start()]
        if end[0] == "." and _STOPPED.search(before) and not _DEGREES.search(before):
            continue
        found.append((begin, end.start()))
        begin = end.end()
    return [*found, (begin, len(text))]


PICTURES = {"So", "Sk", "Cf", "Mn", "Cn"}
"""Categories of characters that a list is decorated with."""


def _without_pictures(text: str) -> str:
    """Without the pictures that stand before a line, and the marks that colour them."""
    text = text.replace("\ufe0f", "").replace("\u200d", "").lstrip()
    end = next((n for n, c in enumerate(text) if unicodedata.category(c) not in PICTURES and not c.isspace()), 0)
    return text[end:]


_NUMBER = re.compile(r"^\s*\(?(\d*[.,]?\d+)\s*(%|kg|g|gr|gram|grams|oz|lb|lbs|ml|l)?\.?\)?\s*$", re.IGNORECASE)
_UNIT_WORDS = {"g": "g", "gram": "g", "grams": "g", "gramm": "g", "weight": "g", "gewicht": "g", "menge": "g", "kg": "kg", "oz": "oz", "lb": "lb", "ml": "ml"}


def _unit_of(head: str) -> str:
    """What a column holds by its head: a unit, "%", or blank where that tells nothing."""
    if "%" in head or "percent" in head.casefold():
        return "%"
    return next((_UNIT_WORDS[word] for word in re.findall(r"\w+", head.casefold()) if word in _UNIT_WORDS), "")


def as_read(texts: Sequence[str]) -> list[str]:
    """Every line of a page as it is read, line for line; in a table pasted with tabs, grams stand before percent."""
    cells = [_cells(text) for text in texts]
    found, units, percent, total = [], [""], _percent_column(cells), -1
    for text, row in zip(texts, cells, strict=True):
        numbers = [(n, m) for n, cell in enumerate(row) if (m := _NUMBER.match(cell))]
        if not row:
            units = [""] if not text.strip() else units
            found.append(plain(text))
        elif numbers and (line := _row(row, [one for one in numbers if total < 0 or one[0] == total], units, percent)):
            found.append(plain(line))
        elif not numbers and any(map(_unit_of, row)):
            units = list(map(_unit_of, row))
            total = next((n for n, head in enumerate(row) if units[n] and re.search(r"total|gesamt|sum", head, re.IGNORECASE)), -1)
            found.append("")  # the table's head
        else:
            found.append(plain(text))
    return found


def _cells(text: str) -> list[str]:
    """The cells of a row, parted by tabs or by wide gaps behind a name; none for a line of prose or a bare list."""
    text = text.strip()[:LONGEST_LINE]
    cells = [cell.strip() for cell in _COLUMNS.split(text)]
    if "\t" in text:
        return [cell.strip() for cell in text.split("\t")]
    if len(by_comma := text.split(",")) > 2 and ", " not in text and (any(map(_NUMBER.match, by_comma[1:])) or any(map(_unit_of, by_comma[1:]))):
        return [cell.strip() for cell in by_comma]
    if len(cells) > 1 and all(len(cell) <= 12 and _unit_of(cell) for cell in cells):
        return cells  # the head of a table
    gapped = len(cells) > 1 and not _NUMBER.match(cells[0]) and not cells[0][:1].isdigit() and any(map(_NUMBER.match, cells[1:]))
    return cells if gapped else []


def _percent_column(cells: Sequence[Sequence[str]]) -> int:
    """Which of two bare columns is percent, where no head says so: the one with a 100 in it, or smaller numbers; −1 for none."""
    rows = [row for row in cells if sum(_NUMBER.match(cell) is not None for cell in row) == 2]
    columns = {n for row in rows for n, cell in enumerate(row) if _NUMBER.match(cell)}
    if len(columns) != 2 or len(rows) < 3:
        return -1
    sums = {n: sum(float(m[1].replace(",", ".")) for row in rows if n < len(row) and (m := _NUMBER.match(row[n]))) for n in columns}
    return min(sums, key=lambda n: sums[n])


def _row(row: Sequence[str], numbers: list[tuple[int, re.Match[str]]], units: Sequence[str], percent: int) -> str:
    """A table's row as a line: name, what it weighs, and its percentage behind."""
    name = " ".join(cell for n, cell in enumerate(row) if cell not in ("", "-", "–", "—") and not any(n == m for m, _ in numbers))
    grams = share = ""
    for n, match in numbers:
        from_right = len(row) - n
        unit = (match[2] or "").lower() or (units[-from_right] if from_right <= len(units) else "") or ("%" if n == percent and len(numbers) > 1 else "")
        if unit == "%":
            share = share or f"{match[1]} %"
        else:
            weighs = f"{match[1]} {unit}".strip()
            if grams and (grams.split()[-1], unit) in (("lb", "oz"), ("kg", "g")):
                grams += f" {weighs}"  # pounds and ounces in columns of their own
            elif not grams or (unit and not grams[-1:].isalpha()):
                grams = weighs
    if grams[-1:].isdigit() and share:
        grams += " g"  # a formula's table: bare weights beside percentages
    if not name or not (grams or share):
        return ""
    return " | ".join(filter(None, (name, grams, share)))
