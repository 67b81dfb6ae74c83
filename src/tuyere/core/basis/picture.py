"""A photograph made fit to keep.

Known by its content, upright, no larger than wanted, without what the camera wrote beside it (place, time, maker).
"""

import io
from dataclasses import dataclass

from PIL import Image, ImageFile, ImageOps

LARGEST_BYTES = 16 * 1024 * 1024  # as sent
# Dots, by the header: a JPEG is read at reduced size, anything else whole; more is a bomb or no photograph.
MOST_DOTS = {"JPEG": 80_000_000, "PNG": 25_000_000, "WEBP": 25_000_000}
EDGE, THUMB_EDGE = 1600, 320  # px
TOO_LARGE = f"That picture is larger than {LARGEST_BYTES // 1024**2} MB: take it again with a lower setting."
TOO_MANY = "That picture has too many dots ({width} × {height}): take it again with a lower setting, or send it as JPEG."
TOO_THIN = "That picture is a strip of {width} × {height} dots, too thin to be seen: crop it shorter."


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
        raise NotAPictureError(TOO_LARGE)
    ImageFile.LOAD_TRUNCATED_IMAGES = False  # the library that prints switches it on for the whole process
    try:
        with Image.open(io.BytesIO(sent), formats=tuple(MOST_DOTS)) as found:
            width, height = found.size
            if width * height > MOST_DOTS[found.format or ""]:
                raise NotAPictureError(TOO_MANY.format(width=width, height=height))
            if min(width, height) * THUMB_EDGE < max(width, height):
                raise NotAPictureError(TOO_THIN.format(width=width, height=height))
            found.draft("RGB", _within(found.size, 2 * EDGE))
            small_enough = _plain(found)
            small_enough.thumbnail((EDGE, EDGE))
            whole = _on_white(ImageOps.exif_transpose(small_enough))
    except NotAPictureError:
        raise
    except Image.DecompressionBombError:
        raise NotAPictureError("That picture has too many dots: take it again with a lower setting.") from None
    except (OSError, ValueError, SyntaxError):
        raise NotAPictureError("That is no picture that can be read here: send a photo as JPEG, PNG or WebP.") from None
    small = whole.resize(_within(whole.size, THUMB_EDGE), Image.Resampling.BICUBIC)
    return Picture(_jpeg(whole, 82), _jpeg(small, 75), whole.width, whole.height)


def _within(size: tuple[int, int], edge: int) -> tuple[int, int]:
    """That shape with the longer side `edge` at most, no side under one dot."""
    by = min(1.0, edge / max(size))
    return max(1, round(size[0] * by)), max(1, round(size[1] * by))


def _plain(picture: Image.Image) -> Image.Image:
    """In a mode that can be made smaller smoothly."""
    if picture.mode in ("RGB", "RGBA"):
        return picture
    return picture.convert("RGBA" if picture.mode in ("LA", "PA") or "transparency" in picture.info else "RGB")


def _on_white(picture: Image.Image) -> Image.Image:
    if picture.mode == "RGB":
        return picture
    ground = Image.new("RGBA", picture.size, "white")
    ground.alpha_composite(picture)
    return ground.convert("RGB")


def _jpeg(picture: Image.Image, quality: int) -> bytes:
    clean = Image.new("RGB", picture.size)
    clean.paste(picture)  # a new picture: no profile, no comment, no position goes along
    out = io.BytesIO()
    clean.save(out, "JPEG", quality=quality, optimize=True)
    return out.getvalue()
