"""The weigh sheet as CSV (RFC 4180): one thing to weigh a row, with what the scale shows once it is in the bowl."""

import csv
import io

from pancount.core.sheet.printed import WeighSheet
from pancount.formats.formula_csv import plain_cell

HEADER = ("stage", "ingredient", "percent_of_flour", "amount", "unit", "scale_shows", "scale_step", "note")


def write_sheet_csv(sheet: WeighSheet) -> str:
    """One mix of the sheet, then what is beside the dough, then a row for each target with its pieces."""
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(HEADER)
    for stage in (*sheet.stages, *sheet.beside):
        for line in stage.lines:
            percent = "" if line.percent is None else f"{line.percent:.6g}"
            amount, shows = ("" if v is None else f"{v:f}" for v in (line.printed, line.running))
            rows.writerow(
                (
                    plain_cell(stage.name), plain_cell(line.name), percent, amount, sheet.unit, shows, f"{line.step:f}",
                    plain_cell(line.note),
                )
            )  # fmt: skip
        for fed in stage.fed:
            rows.writerow((plain_cell(stage.name), plain_cell(fed.name), "", f"{fed.printed:f}", sheet.unit, "", "", "from another stage"))
            if fed.made_up:
                rows.writerow((plain_cell(stage.name), "Water", "", f"{fed.made_up:f}", sheet.unit, f"{fed.running:f}", "", "for what boiled off"))
    rows.writerow(("", "All of it", f"{sheet.total_percent:.6g}", f"{sheet.printed_total:f}", sheet.unit, "", "", f"mixes: {sheet.mixes}"))
    for target in sheet.targets:
        name = plain_cell(target.name) or "Divide"
        rows.writerow(("", name, "", f"{target.piece:f}", sheet.unit, "", "", f"pieces: {target.pieces}"))
    return out.getvalue()
