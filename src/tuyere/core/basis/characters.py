"""Characters that no text of the record holds: none of them can be seen, and some cannot be kept or drawn at all."""

import re

# Controls but tab and line breaks, halves of a pair, and Unicode's noncharacters.
_UNKEPT = re.compile(
    "[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufdd0-\ufdef"
    + "".join(f"{chr(p + 0xFFFE)}{chr(p + 0xFFFF)}" for p in range(0, 0x110000, 0x10000))
    + "]"
)


def can_be_kept(text: str) -> bool:
    """Whether every character of it can be kept, drawn and sent on."""
    return _UNKEPT.search(text) is None


def drawable(text: str) -> str:
    """Without what cannot be drawn: for rows from before it was refused."""
    return _UNKEPT.sub("", text)
