"""A ruler at true size, to lay beside a rope or a ring at the bench: printed at 100 %, its centimetres are centimetres."""

from pancount.core.base.units import CM_PER_IN
from pancount.core.pans.shaping import Shaped
from pancount.formats.pan_words import LengthUnit, length, shape_words

SHEET_CM = {"A4": (29.7, 21.0), "Letter": (27.94, 21.59)}
"""ISO 216 and ANSI/ASME Y14.1, lying. [cm]"""
MARGIN_CM = 1.0


def _strip(from_cm: float, to_cm: float, unit: LengthUnit, mark_cm: float | None) -> str:
    """One strip of the ruler as SVG, in millimetres."""
    step = 1.0 if unit == "cm" else CM_PER_IN
    parts = 10 if unit == "cm" else 8
    wide = to_cm - from_cm
    # A stylesheet does not reach into a drawing here, so each part says its own colours.
    drawn = [f'<rect x="0" y="0" width="{wide:.3f}" height="2.6" fill="none" stroke="#1E4478" stroke-width=".05"/>']
    first, last = round(from_cm / step * parts), round(to_cm / step * parts)
    for n in range(first, last + 1):
        x = n * step / parts - from_cm
        if not -1e-6 <= x <= wide + 1e-6:
            continue
        tall = 1.1 if n % parts == 0 else 0.75 if n % (parts // 2) == 0 else 0.4
        drawn.append(f'<line x1="{x:.3f}" y1="0" x2="{x:.3f}" y2="{tall}" stroke="#18222F" stroke-width=".02"/>')
        if n % parts == 0:
            drawn.append(f'<text x="{x:.3f}" y="1.75" font-size=".45" text-anchor="middle" fill="#18222F">{n // parts}</text>')
    if mark_cm is not None and from_cm < mark_cm <= to_cm:
        x = mark_cm - from_cm
        drawn.append(f'<line x1="{x:.3f}" y1="0" x2="{x:.3f}" y2="2.6" stroke="#B95A14" stroke-width=".08"/>')
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide + 0.1:.3f}cm" height="2.7cm" '
        f'viewBox="-0.05 -0.05 {wide + 0.1:.3f} 2.7">{"".join(drawn)}</svg>'
    )


def ruler_marks_cm(shaped: Shaped) -> float:
    """The length that is marked on the ruler: of the rope or log, or across what is round. [cm]"""
    return shaped.length_cm if shaped.length_cm is not None else shaped.across_cm


LONGEST_CM = 150.0
"""No more strips than this are printed; a longer rope is measured in parts. [cm]"""


def ruler_pdf(shaped: Shaped, *, name: str, paper: str, unit: LengthUnit) -> bytes:
    """The ruler, in strips to lay end to end where the paper is too short, with the piece's length marked and circles of its width and opening."""
    page_cm, across_cm = SHEET_CM.get(paper, SHEET_CM["A4"])
    strip = page_cm - 2 * MARGIN_CM - 0.2
    mark = ruler_marks_cm(shaped)
    strips: list[str] = []
    at = 0.0
    while at < min(mark, LONGEST_CM) + 1e-9 or not strips:
        strips.append(_strip(at, at + strip, unit, mark))
        at += strip
    circles = "".join(
        f'<div class="ring" style="width:{cm:.3f}cm;height:{cm:.3f}cm"><span>{label} {length(cm, unit)} {unit}</span></div>'
        for label, cm in (("across", shaped.across_cm), ("opening", shaped.opening_cm or 0.0), ("thick", shaped.thickness_cm or 0.0))
        if 0 < cm < across_cm - 2 * MARGIN_CM - 3 and (shaped.kind in ("ring", "disc", "ball") or label == "thick")
    )
    html = f"""<!doctype html><html lang="en"><meta charset="utf-8"><title>Ruler</title><style>
      @page {{ size: {page_cm}cm {across_cm}cm; margin: {MARGIN_CM}cm }}
      body {{ font: 10pt "DejaVu Sans", sans-serif; color: #18222F; margin: 0 }}
      p {{ margin: 0 0 .25cm }} svg {{ display: block; margin-bottom: .4cm }}
      .ring {{ display: inline-block; box-sizing: border-box; border: .05cm solid #1E4478; border-radius: 50%; margin-right: .6cm;
        vertical-align: top; position: relative }}
      .ring span {{ position: absolute; top: 50%; left: 0; right: 0; text-align: center; font-size: 8pt; margin-top: -5pt; white-space: nowrap }}
    </style><p><b>{_escaped(name)}</b>: {shape_words(shaped, unit)}. Print at 100 %, then check that the strip is {length(strip, unit)} {unit} long.
    {"Lay the strips end to end." if len(strips) > 1 else ""}</p>{"".join(strips)}{circles}</html>"""
    # Imported here, as for the sheet: it takes most of a second.
    from weasyprint import HTML

    pdf = HTML(string=html).write_pdf()
    assert isinstance(pdf, bytes)  # write_pdf returns None only when given a target
    return pdf


def _escaped(text: str) -> str:
    return text.replace("&", "&amp;").replace("<", "&lt;")
