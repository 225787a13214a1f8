"""A photo as it is kept: smaller, upright, a JPEG, and without anything that says where, when and with what it was taken."""

import io
import warnings
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from PIL import Image, ImageFile, ImageOps, UnidentifiedImageError

from pancount.core.base import most
from pancount.core.base.errors import CoreError

LARGE_PX, SMALL_PX = 1600, 320
"""The longer side of what is kept, and of what stands in lists."""
QUALITY = 82
KINDS = ("JPEG", "PNG", "WEBP")
LEAST_PX = 16


class NoPhoto(CoreError):
    """It cannot be read as a photo; the sentence says what would do."""

    code = "no_photo"
    title = "This is no photo"


@dataclass(frozen=True, slots=True)
class Photo:
    """Two JPEGs of one picture, and how large the larger is."""

    large: bytes
    small: bytes
    width: int
    height: int


def photo_of(content: bytes) -> Photo:
    """A photo from a file: JPEG, PNG or WebP. Raises `NoPhoto`."""
    try:
        with warnings.catch_warnings(), _wholly():
            warnings.simplefilter("ignore")  # of a damaged EXIF part: it is thrown away
            return _made(content)
    except NoPhoto:
        raise
    except UnidentifiedImageError:
        raise NoPhoto("This is no photo that can be read: JPEG, PNG or WebP will do.", ()) from None
    except Image.DecompressionBombError:
        raise NoPhoto("This photo is far too large. Make it smaller first.", ()) from None
    except (OSError, ValueError, SyntaxError, EOFError, MemoryError, OverflowError):
        raise NoPhoto("This photo is damaged, or only part of it arrived. Take it from the camera again.", ()) from None


@contextmanager
def _wholly() -> Iterator[None]:
    """What is cut off is refused: the maker of papers has Pillow fill it up with grey, for the whole process."""
    before = ImageFile.LOAD_TRUNCATED_IMAGES
    ImageFile.LOAD_TRUNCATED_IMAGES = False
    try:
        yield
    finally:
        ImageFile.LOAD_TRUNCATED_IMAGES = before


def _made(content: bytes) -> Photo:
    with Image.open(io.BytesIO(content), formats=KINDS) as opened:
        wide, high = opened.size
        kind = f"{'progressive ' if opened.info.get('progressive') and opened.format == 'JPEG' else ''}{opened.format}"
        pixels = most.PHOTO_PIXELS[kind]
        if wide * high > pixels:
            raise NoPhoto(f"This photo has {wide * high / 1e6:.0f} million pixels; of this kind ({kind}) up to {pixels / 1e6:.0f} can be read. Make it smaller first.", ())
        if min(wide, high) < LEAST_PX:
            raise NoPhoto(f"This picture is only {wide} × {high} pixels: nothing could be seen on it.", ())
        opened.draft("RGB", (LARGE_PX, LARGE_PX))  # a JPEG is read at once near the size that is kept
        opened.thumbnail((LARGE_PX, LARGE_PX), Image.Resampling.LANCZOS)
        picture = _on_white(ImageOps.exif_transpose(opened))
    small = picture.copy()
    small.thumbnail((SMALL_PX, SMALL_PX), Image.Resampling.LANCZOS)
    return Photo(_jpeg(picture), _jpeg(small), *picture.size)


def _on_white(picture: Image.Image) -> Image.Image:
    """What is clear in it on white; nothing but its pixels."""
    if picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info:
        clear = picture.convert("RGBA")
        white = Image.new("RGB", clear.size, "white")
        white.paste(clear, mask=clear.getchannel("A"))
        return white
    bare = Image.new("RGB", picture.size)
    bare.paste(picture.convert("RGB"))
    return bare


def _jpeg(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    picture.save(out, "JPEG", quality=QUALITY, optimize=True, progressive=False)
    return out.getvalue()
