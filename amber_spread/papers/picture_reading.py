"""A photograph to trace over: bounded, turned the way it was taken, made small, and written anew, so that nothing else
of the file is kept.
"""

import base64
import io

from PIL import Image, ImageOps

from amber_spread.core.design.builds import MOST_PICTURE
from amber_spread.core.kernel.base import Frozen

LONGEST_PX = 1100
"""As long as a picture is kept: fine enough to set a corner to a millimetre on a cake of a metre."""
QUALITIES = (80, 65, 50, 35)
MOST_PIXELS = 50_000_000
LEAST_PX = 40
READ = ("JPEG", "PNG")
WHITE = (255, 255, 255)


class PictureError(ValueError):
    """The file is no picture that can be laid under a drawing; the message says why and what would do."""


class ReadPicture(Frozen):
    """A picture as JPEG in base 64, and how wide and high it is in pixels."""

    jpeg: str
    wide: int
    high: int


def read_picture(data: bytes) -> ReadPicture:
    """The picture in a JPEG or PNG file. Raises PictureError where there is none, or it is too large."""
    try:
        picture = Image.open(io.BytesIO(data), formats=READ)
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        raise PictureError("This is no picture that is read: bring a JPEG or PNG file.") from error
    wide, high = picture.size
    if wide * high > MOST_PIXELS:
        raise PictureError(
            f"The picture has {wide * high / 1e6:,.0f} million pixels; at most {MOST_PIXELS // 1_000_000} are read. "
            "Save it smaller."
        )
    if min(wide, high) < LEAST_PX:
        raise PictureError(f"The picture is {wide} by {high} pixels, too few to trace over.")
    try:
        # A JPEG file can be read at a half, a quarter or an eighth of its size, which takes less room.
        picture.draft("RGB", (LONGEST_PX, LONGEST_PX))
        picture.thumbnail((LONGEST_PX, LONGEST_PX), reducing_gap=2.0)
        upright = _on_white(ImageOps.exif_transpose(picture))
    except (OSError, ValueError, SyntaxError, EOFError) as error:
        raise PictureError("The picture ends early or is garbled. Save it again, as JPEG or PNG.") from error
    while True:
        for quality in QUALITIES:
            kept = io.BytesIO()
            upright.save(kept, "JPEG", quality=quality, optimize=True)
            jpeg = base64.b64encode(kept.getvalue()).decode("ascii")
            if len(jpeg) <= MOST_PICTURE:
                return ReadPicture(jpeg=jpeg, wide=upright.width, high=upright.height)
        upright = upright.reduce(2)


def _on_white(picture: Image.Image) -> Image.Image:
    """The picture in plain red, green and blue; what is clear in it lies on white."""
    if picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info:
        clear = picture.convert("RGBA")
        ground = Image.new("RGB", clear.size, WHITE)
        ground.paste(clear, mask=clear.getchannel("A"))
        return ground
    return picture.convert("RGB")
