"""Photos: smaller, upright, and nothing in them of where, when and with what they were taken (read back by Pillow)."""

import io

import pytest
from PIL import Image, ImageFile
from PIL.ExifTags import GPS, IFD, Base

from pancount.core.base import most
from pancount.formats.photo import LARGE_PX, NoPhoto, photo_of


def taken(size: tuple[int, int] = (800, 600), kind: str = "JPEG", mode: str = "RGB", orientation: int | None = None, **more: object) -> bytes:
    """A photo as a telephone writes it: left half red, right half blue, with place, camera and time."""
    picture = Image.new("RGB", size, "red")
    picture.paste((0, 0, 255), (size[0] // 2, 0, *size))
    exif = Image.Exif()
    exif[Base.Make], exif[Base.Model], exif[Base.DateTime] = "Weir Cameras", "Lock 1", "2026:11:30 07:00:00"
    if orientation:
        exif[Base.Orientation] = orientation
    exif.get_ifd(IFD.GPSInfo)[GPS.GPSLatitude] = (52.0, 30.0, 0.0)
    exif.get_ifd(IFD.GPSInfo)[GPS.GPSLatitudeRef] = "N"
    out = io.BytesIO()
    picture.convert(mode).save(out, kind, exif=exif.tobytes(), **more)
    return out.getvalue()


def opened(content: bytes) -> Image.Image:
    return Image.open(io.BytesIO(content))


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_place_and_camera_are_gone(kind):
    """What Pillow reads of place, camera and time in the photo that came is in neither of those that are kept."""
    content = taken(kind=kind)
    before = opened(content).getexif()
    assert before.get_ifd(IFD.GPSInfo)[GPS.GPSLatitude]
    assert before[Base.Make] == "Weir Cameras"
    photo = photo_of(content)
    for kept in (photo.large, photo.small):
        own = opened(kept)
        assert dict(own.getexif()) == {}
        assert dict(own.getexif().get_ifd(IFD.GPSInfo)) == {}
        assert not {"exif", "xmp", "comment", "icc_profile"} & set(own.info)
        assert b"Weir Cameras" not in kept


@pytest.mark.parametrize(("orientation", "corner"), [(1, "left"), (3, "right"), (6, "top"), (8, "bottom"), (2, "right")])
def test_upright(orientation, corner):
    """The red half of a picture that was held sideways lies where the camera saw it (EXIF 2.32, orientation)."""
    picture = opened(photo_of(taken(orientation=orientation)).large)
    wide, high = picture.size
    assert (wide > high) is (orientation in (1, 2, 3))
    at = {"left": (10, high // 2), "right": (wide - 10, high // 2), "top": (wide // 2, 10), "bottom": (wide // 2, high - 10)}[corner]
    red, _, blue = picture.getpixel(at)
    assert red > 200 > 60 > blue


def test_smaller_and_never_larger():
    large, little = photo_of(taken((4000, 3000))), photo_of(taken((400, 300)))
    assert (large.width, large.height) == (LARGE_PX, 1200)
    assert (little.width, little.height) == (400, 300)
    assert len(large.small) < len(large.large) < 400_000


@pytest.mark.parametrize("mode", ["L", "CMYK", "RGB"])
def test_any_colours(mode):
    assert opened(photo_of(taken(mode=mode)).large).mode == "RGB"


def test_what_is_clear_is_white():
    out = io.BytesIO()
    Image.new("RGBA", (64, 64), (0, 0, 0, 0)).save(out, "PNG")
    assert min(opened(photo_of(out.getvalue()).large).getpixel((30, 30))) > 250


def whole(kind: str) -> bytes:
    return taken((300, 300), kind)


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"", "JPEG, PNG or WebP"), (b"a recipe, not a photo", "JPEG, PNG or WebP"), (whole("JPEG")[:2000], "damaged"), (whole("PNG")[:-30], "damaged"), (whole("WEBP")[:200], "damaged|no photo"),
        (taken((8, 8)), "only 8 × 8"), (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "JPEG, PNG or WebP"),
    ],
)  # fmt: skip
def test_no_photo(content, says):
    """What is none, or only part of one, is refused with a sentence."""
    with pytest.raises(NoPhoto, match=says):
        photo_of(content)


def test_cut_off_beside_the_maker_of_papers():
    """WeasyPrint has Pillow fill up what is cut off, for the whole process: half a photo is refused all the same, and papers go on as before."""
    import weasyprint  # noqa: F401

    ImageFile.LOAD_TRUNCATED_IMAGES = True
    content = whole("JPEG")
    with pytest.raises(NoPhoto, match="damaged"):
        photo_of(content[: len(content) // 2])
    assert ImageFile.LOAD_TRUNCATED_IMAGES is True


def test_too_many_pixels():
    """A picture of few bytes and endless pixels is refused before it is read."""
    out = io.BytesIO()
    Image.new("1", (6000, most.PHOTO_PIXELS["PNG"] // 6000 + 1)).save(out, "PNG")
    with pytest.raises(NoPhoto, match="million pixels"):
        photo_of(out.getvalue())


def test_every_cut_of_a_photo():
    """Cut off anywhere, it is read or refused, and nothing else happens."""
    content = taken((120, 90))
    told = 0
    for end in range(0, len(content), 97):
        try:
            photo_of(content[:end])
        except NoPhoto:
            told += 1
    assert told > 5
