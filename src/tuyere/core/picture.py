"""A photograph made fit to keep: known by its content, upright, no larger than wanted, without what the camera wrote beside it (place, time, maker)."""

import io
from dataclasses import dataclass

from PIL import Image, ImageFile, ImageOps

LARGEST_BYTES = 16 * 1024 * 1024  # as sent
LARGEST_PIXELS = 80_000_000  # unpacked; more is a bomb or no photograph
EDGE, THUMB_EDGE = 1600, 320  # px
_KINDS = ("JPEG", "PNG", "WEBP")


class NotAPictureError(ValueError):
    """It cannot be kept; the message is a sentence that says what to do."""


@dataclass(frozen=True)
class Picture:
    """As kept: JPEG, and a small one beside it; size in px."""

    content: bytes
    thumb: bytes
    width: int
    height: int


def picture_of(sent: bytes) -> Picture:
    """Read, turn upright, make small, and write anew without anything but the picture. Raises NotAPictureError.

    What the sender calls it does not count: only what is in it.
    """
    if len(sent) > LARGEST_BYTES:
        raise NotAPictureError(f"That picture is larger than {LARGEST_BYTES // 1024**2} MB: take it again with a lower setting.")
    ImageFile.LOAD_TRUNCATED_IMAGES = False  # the library that prints switches it on for the whole process
    try:
        with Image.open(io.BytesIO(sent), formats=_KINDS) as found:
            if found.width * found.height > LARGEST_PIXELS:
                raise NotAPictureError("That picture has too many dots: take it again with a lower setting.")
            found.draft("RGB", (2 * EDGE, 2 * EDGE))
            upright = ImageOps.exif_transpose(found)
            whole = _on_white(upright)
    except NotAPictureError:
        raise
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise NotAPictureError("That is no picture that can be read here: send a photo as JPEG, PNG or WebP.") from None
    whole.thumbnail((EDGE, EDGE))
    return Picture(_jpeg(whole, 82), _jpeg(ImageOps.contain(whole, (THUMB_EDGE, THUMB_EDGE)), 75), whole.width, whole.height)


def _on_white(picture: Image.Image) -> Image.Image:
    if picture.mode in ("RGBA", "LA", "PA") or "transparency" in picture.info:
        over = picture.convert("RGBA")
        ground = Image.new("RGBA", over.size, "white")
        ground.alpha_composite(over)
        return ground.convert("RGB")
    return picture.convert("RGB")


def _jpeg(picture: Image.Image, quality: int) -> bytes:
    clean = Image.new("RGB", picture.size)
    clean.paste(picture)  # a new picture: no profile, no comment, no position goes along
    out = io.BytesIO()
    clean.save(out, "JPEG", quality=quality, optimize=True)
    return out.getvalue()
