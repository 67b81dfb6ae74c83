"""What a movable machine stands on: tables/align_bases.csv."""

from dataclasses import dataclass

from tuyere.core.basis.table import rows


@dataclass(frozen=True)
class Base:
    """A kind of base: how its two ends are called, and how each correction is made there.

    `lift`, `swing`, `slide`: with places for what moves; empty where it cannot, and then `no_lift`, `no_swing` say what to do.
    """

    key: str
    label: str
    front: str
    back: str
    has_feet: bool
    lift: str
    no_lift: str
    swing: str
    no_swing: str
    slide: str


def bases() -> tuple[Base, ...]:
    """Every kind, the usual first."""
    return tuple(
        Base(
            r["key"],
            r["label"],
            r["front"],
            r["back"],
            r["feet"] == "yes",
            r["lift"],
            r["no_lift"],
            r["swing"],
            r["no_swing"],
            r["slide"],
        )
        for r in rows("align_bases")
    )


def base_of(key: str) -> Base:
    """The kind of that name, written with blanks or low lines; four feet where nobody has said."""
    wanted = key.strip().lower().replace("_", " ")
    return next((b for b in bases() if b.key == wanted), bases()[0])
