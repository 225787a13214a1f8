"""A count as an OpenDocument spreadsheet (ISO/IEC 26300) with live formulas: percentages, pieces and loss are typed, grams follow.

Pieces and piece weights of each target give the dough to divide, the bench loss the dough mixed, the formula's total the
flour, and each line's percentage its grams. Nothing in it is rounded but by the number format, so that it can be reckoned
on from.
"""

from io import BytesIO
from typing import Any

from odf.namespaces import TABLENS
from odf.number import Number, NumberStyle
from odf.opendocument import OpenDocumentSpreadsheet
from odf.style import Style, TableColumnProperties, TextProperties
from odf.table import Table, TableCell, TableColumn, TableRow
from odf.text import P

from pancount.core.count.count import Count
from pancount.core.count.relations import of
from pancount.core.count.solve import solve
from pancount.core.formula.formula import Formula
from pancount.core.formula.practice import Practice
from pancount.core.formula.reckon import School
from pancount.core.formula.stages import stage_name
from pancount.core.formula.ways import in_way
from pancount.core.pans.kit import Kit
from pancount.core.pantry.ingredients import Pantry
from pancount.core.sheet.weigh import refuse_fights


class _Sheet:
    """A table that is written row by row and knows the address of what it wrote."""

    def __init__(self, document: Any, name: str) -> None:
        self.table = Table(name=name)
        self.row = 0
        self.plain, self.two, self.head, self.typed = _styles(document)
        wide = Style(name="wide", family="table-column")
        wide.addElement(TableColumnProperties(columnwidth="6.5cm"))
        document.automaticstyles.addElement(wide)
        self.table.addElement(TableColumn(stylename=wide, numbercolumnsrepeated=2))
        self.table.addElement(TableColumn(numbercolumnsrepeated=4))
        document.spreadsheet.addElement(self.table)

    def write(self, *cells: Any) -> int:
        """A row of cells; its number, from 1."""
        row = TableRow()
        for cell in cells:
            row.addElement(cell)
        self.table.addElement(row)
        self.row += 1
        return self.row

    def text(self, text: str, *, head: bool = False) -> Any:
        cell = TableCell(valuetype="string", stylename=self.head if head else self.plain)
        cell.addElement(P(text=text))
        return cell

    def number(self, value: float) -> Any:
        """A number that the baker may change."""
        return TableCell(valuetype="float", value=repr(float(value)), stylename=self.typed)

    def formula(self, reckoned: str, value: float) -> Any:
        """A number that follows from others; `value` is what it comes to now."""
        cell = TableCell(valuetype="float", value=repr(float(value)), stylename=self.two)
        cell.setAttrNS(TABLENS, "formula", f"of:={reckoned}")
        return cell


def _styles(document: Any) -> tuple[Any, Any, Any, Any]:
    shown = NumberStyle(name="grams")
    shown.addElement(Number(decimalplaces="2", minintegerdigits="1", grouping="true"))
    document.automaticstyles.addElement(shown)
    plain = Style(name="plain", family="table-cell")
    two = Style(name="worked", family="table-cell", datastylename=shown)
    two.addElement(TextProperties(color="#B95A14"))
    head = Style(name="head", family="table-cell")
    head.addElement(TextProperties(fontweight="bold", color="#1E4478"))
    typed = Style(name="typed", family="table-cell")
    typed.addElement(TextProperties(color="#1E4478"))
    for style in (plain, two, head, typed):
        document.automaticstyles.addElement(style)
    return plain, two, head, typed


def count_ods(
    formula: Formula, count: Count, kit: Kit, school: School = "joined", pantry: Pantry | None = None
) -> bytes:
    """The spreadsheet. Raises what `reckon` raises, and `PinsFight` where the count does not hold together."""
    formula = in_way(formula, count.way)
    found = solve(formula, count, pantry, Practice(starter=school), kit, None)
    refuse_fights(found.result, len(count.targets))
    reckoned, values = found.reckoned, found.solution.values
    document = OpenDocumentSpreadsheet()
    sheet = _Sheet(document, "Count")
    sheet.write(sheet.text(formula.name or "Formula without a name", head=True))
    sheet.write(sheet.text("What is typed is blue, what follows from it is orange."))
    sheet.write()
    sheet.write(*(sheet.text(t, head=True) for t in ("Made of it", "", "Pieces", "Raw piece, g", "Together, g")))
    rows = []
    for i, target in enumerate(count.targets):
        pieces, piece_g = values[of("pieces", i)], values[of("piece_g", i)]
        n = sheet.row + 1
        rows.append(
            sheet.write(
                sheet.text(target.name or f"Target {i + 1}"), sheet.text(""), sheet.number(pieces), sheet.number(piece_g),
                sheet.formula(f"[.C{n}]*[.D{n}]", pieces * piece_g),
            )
        )  # fmt: skip
    over = sheet.write(sheet.text("Left over"), sheet.text(""), sheet.text(""), sheet.text(""), sheet.number(values["remainder_g"]))
    divide = sheet.write(
        sheet.text("Dough to divide"), sheet.text(""), sheet.text(""), sheet.text(""),
        sheet.formula(f"SUM([.E{rows[0]}:.E{over}])", values["divide_g"]),
    )  # fmt: skip
    loss = sheet.write(sheet.text("Bowl and bench loss, %"), sheet.text(""), sheet.text(""), sheet.text(""), sheet.number(values["bench_loss"] * 100))
    mixed = sheet.write(
        sheet.text("Dough mixed"), sheet.text(""), sheet.text(""), sheet.text(""),
        sheet.formula(f"[.E{divide}]/(1-[.E{loss}]/100)", values["dough_g"]),
    )  # fmt: skip
    # The lines come below: how many there are says where the total will stand.
    lines = [
        (stage, line, figure.percent, figures.reach)
        for stage, figures in zip(formula.stages, reckoned.stages, strict=True)
        for line, figure in zip(stage.lines, figures.lines, strict=True)
    ]
    flour = sheet.row + 1
    first = flour + 3
    total = first + len(lines)
    sheet.write(
        sheet.text("Flour"), sheet.text(""), sheet.text(""), sheet.text(""),
        sheet.formula(f"[.E{mixed}]*100/[.D{total}]", values["flour_g"]),
    )  # fmt: skip
    sheet.write()
    sheet.write(*(sheet.text(t, head=True) for t in ("Stage", "Ingredient", "Reaches the dough", "% of flour", "Grams")))
    for stage, line, percent, reach in lines:
        n = sheet.row + 1
        sheet.write(
            sheet.text(stage_name(stage)), sheet.text(line.name), sheet.number(reach), sheet.number(percent),
            sheet.formula(f"[.E{flour}]*[.D{n}]/100", values["flour_g"] * percent / 100),
        )  # fmt: skip
    last = total - 1
    sheet.write(
        sheet.text("All of it"), sheet.text(""), sheet.text(""),
        sheet.formula(f"SUMPRODUCT([.C{first}:.C{last}];[.D{first}:.D{last}])", reckoned.total_percent),
        sheet.formula(f"[.E{flour}]*[.D{total}]/100", values["dough_g"]),
    )  # fmt: skip
    out = BytesIO()
    document.write(out)
    return out.getvalue()
