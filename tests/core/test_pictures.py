"""Photographs to trace over: read, bounded, turned, written anew, and without a say in the body."""

import base64
import io

import numpy
import pytest
from PIL import Image

from amber_spread.core.design.builds import MOST_PICTURE, CarvedBuild, Picture
from amber_spread.core.design.effort import bodies_of, carving_of
from amber_spread.core.document import read_document, write_document
from amber_spread.papers.picture_reading import LONGEST_PX, PictureError, read_picture
from tests.designs import alike, document, planned, tier

VIEW = ((0, 0), (200, 0), (200, 60), (170, 100), (30, 100), (0, 60))
SHADES = Image.fromarray(numpy.tile(numpy.linspace(0, 255, 1600).astype("uint8")[None, :, None], (900, 1, 3)))


def written(image, kind, **more):
    kept = io.BytesIO()
    image.save(kept, kind, **more)
    return kept.getvalue()


def back(read):
    return Image.open(io.BytesIO(base64.b64decode(read.jpeg)))


@pytest.mark.parametrize("kind", ["JPEG", "PNG"])
def test_a_picture_is_made_small_and_keeps_its_form(kind):
    read = read_picture(written(SHADES, kind))
    image = back(read)
    assert image.format == "JPEG" and image.size == (read.wide, read.high)
    assert max(image.size) == LONGEST_PX
    assert read.wide / read.high == pytest.approx(1600 / 900, rel=0.01)
    # Dark at its left and light at its right, as it came.
    assert image.getpixel((20, 200))[0] < 20 and image.getpixel((read.wide - 20, 200))[0] > 235


def test_it_is_turned_the_way_it_was_taken_and_nothing_else_of_the_file_is_kept():
    taken = Image.Exif()
    taken[0x0112] = 6  # turned by a quarter (published: Exif 2.3, orientation; from memory)
    taken[0x010F] = "A camera"
    read = read_picture(written(SHADES, "JPEG", exif=taken.tobytes()))
    assert (read.wide, read.high) == (round(LONGEST_PX * 900 / 1600), LONGEST_PX)
    image = back(read)
    assert image.getpixel((200, 20))[0] < 20 and image.getpixel((200, read.high - 20))[0] > 235
    assert not image.getexif() and b"camera" not in base64.b64decode(read.jpeg)


def test_any_way_of_colour_is_read_and_what_is_clear_lies_on_white():
    assert back(read_picture(written(SHADES.convert("CMYK"), "JPEG"))).getpixel((1080, 9))[0] > 230
    clear = Image.new("RGBA", (300, 200), (10, 20, 30, 0))
    assert back(read_picture(written(clear, "PNG"))).getpixel((100, 100)) == (255, 255, 255)
    assert back(read_picture(written(SHADES.convert("P"), "PNG"))).mode == "RGB"
    assert back(read_picture(written(SHADES.convert("L"), "PNG"))).mode == "RGB"


def test_a_busy_picture_is_kept_coarser_and_a_large_one_is_read():
    noise = Image.fromarray(numpy.random.default_rng(1).integers(0, 255, (1100, 1100, 3), dtype=numpy.uint8))
    assert len(read_picture(written(noise, "JPEG", quality=95)).jpeg) <= MOST_PICTURE
    large = Image.new("RGB", (8000, 5000), (90, 120, 60))
    assert max(back(read_picture(written(large, "PNG"))).size) == LONGEST_PX


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "no picture that is read"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "no picture that is read"),
        (written(SHADES.convert("P"), "GIF"), "no picture that is read"),
        (written(SHADES, "JPEG")[:2500], "ends early"),
        (written(SHADES, "PNG")[:900], "ends early"),
        (written(SHADES.resize((20, 12)), "PNG"), "too few"),
        (written(Image.new("1", (20000, 20000)), "PNG"), "400 million pixels|no picture"),
    ],
    ids=["nothing", "a drawing", "another kind", "cut short", "cut short too", "a speck", "a bomb"],
)
def test_what_is_no_picture_is_refused_in_words(data, words):
    with pytest.raises(PictureError, match=words):
        read_picture(data)


def test_a_picture_has_no_say_in_the_body_and_stays_with_the_order():
    build = CarvedBuild(points_mm=VIEW)
    read = read_picture(written(SHADES, "JPEG"))
    over = build.model_copy(update={"picture": Picture(jpeg=read.jpeg, wide_mm=220.0, left_mm=-8.5, low_mm=3.0)})
    plain, traced = document(tier(204, build=build)), document(tier(204, build=over))
    for digest in (bodies_of, carving_of):
        assert digest(plain.design, plain.practice) == digest(traced.design, traced.practice)
    assert alike(planned(*plain.design.tiers), planned(*traced.design.tiers))
    again = read_document(write_document(traced))
    assert again == traced and again.design.tiers[0].build.picture.jpeg == read.jpeg
