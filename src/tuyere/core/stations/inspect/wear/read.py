"""Measured wear as somebody typed it, against its limit."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem
from tuyere.core.kinds.wear_limits import LOOKED, Dogs, WearLimit, Worn, elongation, judge, judge_dogs, limit_of

SPANS = ("chain", "dogs")  # measured over many pitches


@dataclass(frozen=True)
class WornPart:
    """What the drive says of the part.

    Whose tables hold, a chain's pitch (m) and large sprocket, whether belts are narrow, joined or ribbed, and the pitch of a conveyor's
    dogs when new (m).
    """

    family: str
    pitch_m: float | None = None
    large_teeth: int | None = None
    narrow: bool = False
    dog_pitch_m: float | None = None


@dataclass(frozen=True)
class WearRead:
    """What was measured, its value (m or share), what it means, and what is still to say."""

    what: str
    limit: WearLimit
    value: float | None
    worn: Worn | None
    lacks: str
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def tool_of(limit: WearLimit) -> str | None:
    """The tool whose doubt a depth has, of those that are named for it: the finest."""
    return next((t for t in ("feeler", "dial", "caliper", "rule") if t in limit.tool), None)


def whats_of(family: str) -> dict[str, str]:
    """What can be measured on a kind of drive: how each is called."""
    return {r["what"]: r["label"] for r in rows("wear_limits") if family in r["families"].split()}


def read_wear(what: str, part: WornPart, quantities: Mapping[str, Typed], words: Mapping[str, str]) -> WearRead:
    """Read and judge. Raises KeyError for what is not in the table."""
    reader = FieldReader(quantities, words)
    limit = limit_of(what, part.narrow, words.get("fixed") == "yes", part.large_teeth)
    value, lacks = None, ""
    if what in SPANS:
        span, count = reader.value("span", "pitch_span"), reader.whole("count", 1, 400)
        pitch = reader.value("pitch", "pitch_span") or {"chain": part.pitch_m, "dogs": part.dog_pitch_m}.get(what)
        if span and count and pitch:
            value = elongation(span, count, pitch)
        else:
            lacks = f"Still to say: {', '.join(n for n, v in (('the length', span), ('how many pitches', count), ('the pitch when new', pitch)) if not v)}."
    elif limit.unit == "look":
        value = LOOKED.get(words.get("seen", ""))
        lacks = "" if value is not None else "Look, and say whether it is there."
    elif limit.unit == "count":
        counted = reader.whole("count", 0, 400)
        value, lacks = (None, "Count them.") if counted is None else (float(counted), "")
    elif limit.unit == "share":
        value = reader.value("value", "wear_share")
    else:
        deep = reader.given("value", "wear_depth", tool_of(limit))
        value = deep.value if deep else None
    if value is not None and value < -0.01:
        reader.problems.append(Problem("span", "That is shorter than new: count the pitches again."))
        value = None
    worn = None if value is None else judge(value, limit)
    if value is not None and what == "dogs" and (chain := _their_chain(reader)) is not None:
        worn = judge_dogs(Dogs(value, chain))
    return WearRead(what, limit, value, worn, lacks, reader.notes, tuple(reader.problems))


def _their_chain(reader: FieldReader) -> float | None:
    """How much longer the conveyor chain is that dogs drive, where it was measured too."""
    span, count, pitch = (
        reader.value("chain_span", "pitch_span"),
        reader.whole("chain_count", 1, 400),
        reader.value("chain_pitch", "pitch_span"),
    )
    return elongation(span, count, pitch) if span and count and pitch else None
