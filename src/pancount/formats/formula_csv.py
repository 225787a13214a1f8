"""A formula as CSV (RFC 4180), one line of the formula a row, for any spreadsheet."""

import csv
import io
import unicodedata

from pancount.core.formula.formula import Formula
from pancount.core.formula.reckon import reckon

HEADER = ("stage", "ingredient", "role", "percent_of_flour", "weight_g", "note")


BEGINS = "=+-@＝＋－﹣−＠﹫"
"""What a spreadsheet may take for the beginning of a calculation, in wide forms too."""


def plain_cell(text: str) -> str:
    """Text that a spreadsheet will not take for a calculation, whatever blanks, marks or breaks stand before its first sign.

    >>> plain_cell("=1+1"), plain_cell("  ＝1"), plain_cell("Egg-free")
    ("'=1+1", "'  ＝1", 'Egg-free')
    """
    first = next((c for c in text if not (c.isspace() or unicodedata.category(c) in ("Cf", "Cc", "Zs"))), "")
    return "'" + text if (first and first in BEGINS) or text[:1] in ("\t", "\r", "\n") else text


def write_csv(formula: Formula) -> str:
    """The formula as written: percentages and grams to six significant figures; what is not in the dough has no percentage. Raises what `reckon` raises."""
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(HEADER)
    for stage, figures in zip(formula.stages, reckon(formula).stages, strict=True):
        for line, figure in zip(stage.lines, figures.lines, strict=True):
            amounts = ("", "") if figure.given == "open" else (f"{figure.percent:.6g}", f"{figure.weight_g:.6g}")
            rows.writerow((plain_cell(stage.name), plain_cell(line.name), line.role or "", *amounts, plain_cell(line.note)))
    for beside in formula.beside:
        for line in beside.lines:
            weight = "" if line.weight_g is None else f"{line.weight_g:.6g}"
            rows.writerow((plain_cell(beside.name), plain_cell(line.name), line.role or "", "", weight, plain_cell(line.note)))
    return out.getvalue()
