"""Drawn pictures of crumbs and crusts: what stands in the demo kitchen's book for photos. Nothing of it was taken anywhere."""

import io
import math
from random import Random

from PIL import Image, ImageDraw, ImageFilter

SIZE = (1200, 900)
PALE, DARK = (226, 176, 104), (128, 66, 24)


def _between(one: tuple[int, int, int], other: tuple[int, int, int], share: float) -> tuple[int, int, int]:
    share = min(1.0, max(0.0, share))
    return tuple(round(a + (b - a) * share) for a, b in zip(one, other, strict=True))  # type: ignore[return-value]


def _jpeg(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=88)
    return out.getvalue()


def _board(random: Random) -> Image.Image:
    """A wooden board, seen from above."""
    picture = Image.new("RGB", SIZE, (205, 190, 168))
    draw = ImageDraw.Draw(picture)
    for y in range(0, SIZE[1], 6):
        wave = random.uniform(-5, 5)
        draw.line([(x, y + wave + 4 * math.sin(x / 130 + y / 60)) for x in range(0, SIZE[0] + 40, 40)], fill=_between((205, 190, 168), (176, 154, 126), random.random()), width=3)
    return picture.filter(ImageFilter.GaussianBlur(1.2))


def _piece(draw: ImageDraw.ImageDraw, x: float, y: float, radius: float, brown: float, random: Random, *, hole: bool) -> None:
    """A round piece, darker towards its top, with a little light on it."""
    draw.ellipse((x - radius + 8, y - radius + 14, x + radius + 8, y + radius + 14), fill=(150, 130, 104))
    for ring in range(26):
        share = ring / 25
        own = radius * (1 - 0.9 * share)
        colour = _between(PALE, DARK, brown * (0.25 + 0.85 * share) + random.uniform(-0.015, 0.015))
        draw.ellipse((x - own, y - own * 0.97 - share * 6, x + own, y + own * 0.97 - share * 6), fill=colour)
    draw.ellipse((x - radius * 0.45, y - radius * 0.62, x - radius * 0.05, y - radius * 0.38), fill=_between(PALE, DARK, brown * 0.35))
    if hole:
        draw.ellipse((x - radius * 0.26, y - radius * 0.2, x + radius * 0.26, y + radius * 0.26), fill=(120, 92, 62))


def crust(seed: int, brown: float, *, hole: bool, seeds: bool) -> bytes:
    """Pieces side by side on a board, as brown as told: 0 pale to 1 dark."""
    random = Random(seed)
    picture = _board(random)
    draw = ImageDraw.Draw(picture)
    for row in range(3):
        for column in range(4):
            x, y = 190 + column * 275 + random.uniform(-9, 9), 165 + row * 285 + random.uniform(-9, 9)
            radius = 124 + random.uniform(-5, 5)
            _piece(draw, x, y, radius, brown + random.uniform(-0.08, 0.08), random, hole=hole)
            for _ in range(60 if seeds else 24):
                angle, out = random.uniform(0, 2 * math.pi), radius * math.sqrt(random.uniform(0.12 if hole else 0.0, 0.7))
                a, b = x + out * math.cos(angle), y + out * math.sin(angle) * 0.95
                size = random.uniform(3, 6)
                draw.ellipse((a - size * (2 if seeds else 1), b - size, a + size, b + size), fill=_between((244, 232, 202), (120, 96, 60), random.random() * 0.7))
    return _jpeg(picture.filter(ImageFilter.GaussianBlur(1.6)))


def crumb(seed: int, open_: float, brown: float) -> bytes:
    """A cut face: how open it is, from tight to wide, under a crust as brown as told."""
    random = Random(seed)
    picture = _board(random)
    draw = ImageDraw.Draw(picture)
    dome = [(600 + 480 * math.copysign(abs(math.cos(a)) ** 0.72, math.cos(a)), 640 - 470 * math.sin(a) ** 0.86) for a in (math.pi * n / 60 for n in range(61))]
    outline = [(1060, 762), *dome, (140, 762)]
    draw.polygon([(x, y + 16) for x, y in outline], fill=(150, 130, 104))
    draw.polygon(outline, fill=_between(PALE, DARK, brown))
    inner = [(x + (600 - x) * 0.05, y + (520 - y) * 0.06) for x, y in outline]
    draw.polygon(inner, fill=(243, 226, 190))
    holes = int(300 + 260 * (1 - open_))
    for _ in range(holes):
        x, y = random.uniform(170, 1030), random.uniform(235, 735)
        if ((x - 600) / 420) ** 2 + ((640 - y) / 400) ** 2 > 1 and y < 640:
            continue
        size = random.lognormvariate(1.6 + 0.9 * open_, 0.55)
        shade = _between((226, 204, 160), (196, 168, 120), random.random())
        draw.ellipse((x - size * 1.35, y - size, x + size * 1.35, y + size), fill=shade)
        draw.arc((x - size * 1.35, y - size, x + size * 1.35, y + size), 180, 330, fill=(252, 242, 216), width=2)
    return _jpeg(picture.filter(ImageFilter.GaussianBlur(1.5)))
