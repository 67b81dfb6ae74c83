"""Any unknown of a train, from what was typed: leave one thing out, and it follows."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.quantity import QuantityError
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.stations.speed.band import Band, exactly, read_band
from tuyere.core.stations.speed.train import Solved, SpeedError, TrainStep, by_marks, solve

MOST_STAGES = 4


@dataclass(frozen=True)
class ShaftRow:
    """One shaft: its speed in both systems, and whether it was the thing left out."""

    us: str
    si: str
    found: bool


@dataclass(frozen=True)
class WholeTeeth:
    """A whole number of teeth, and the last shaft's speed with it."""

    teeth: int
    speed: str


@dataclass(frozen=True)
class WheelRow:
    """One wheel of a stage: its diameter (or teeth), speed of its rim; `found`: it was left out; `size` for drawing (m, or teeth).

    `whole`: the teeth to either side, and the last shaft's speed with them.
    """

    stage: int
    role: str
    us: str
    si: str
    rim_us: str
    rim_si: str
    found: bool
    size: float
    whole: tuple[WholeTeeth, ...] = ()


@dataclass(frozen=True)
class UnknownAnswer:
    """Shafts from first to last, wheels stage by stage, ratios, what to say; empty until it can be solved."""

    shafts: tuple[ShaftRow, ...]
    wheels: tuple[WheelRow, ...]
    ratios: tuple[str, ...]
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_unknown(quantities: Mapping[str, Typed], words: Mapping[str, str], stages: int, teeth: bool) -> UnknownAnswer:
    """Read the train and solve it; each problem beside its field."""
    reader = FieldReader(quantities, words)
    slip = reader.number("slip", 0, 40, "Write the slip in percent, such as 1: 0 to 40.")
    loss = (slip if slip is not None else 0.0) / 100
    first, last = _band(reader, "first_speed", "train_speed"), _band(reader, "last_speed", "train_speed")
    steps = [_step(reader, k, teeth, loss) for k in range(1, max(1, min(stages, MOST_STAGES)) + 1)]
    marks = [reader.number(f"marks_{r}", 0.5, 1000, "Write the turns counted, such as 20 or 8.5.") for r in ("driving", "driven")]
    if marks[0] and marks[1] and not steps[0].reduction:
        steps[0] = TrainStep(steps[0].driving, steps[0].driven, by_marks(marks[0], marks[1]), loss)
    if reader.problems:
        return UnknownAnswer((), (), (), (), reader.notes, tuple(reader.problems))
    try:
        solved = solve(first, last, steps)
    except SpeedError as reason:
        said = Verdict("unknown", Tone.OPEN, str(reason), "Everything else stays as typed; what is left out is found.")
        return UnknownAnswer((), (), (), (said,), reader.notes, ())
    shafts = tuple(
        ShaftRow(*s.shown("rotation"), solved.found in (("first speed", k), ("last speed", k))) for k, s in enumerate(solved.speeds)
    )
    return UnknownAnswer(
        shafts,
        tuple(_wheels(solved, teeth)),
        tuple(f"{s.reduction.middle:.3f}" for s in solved.steps if s.reduction),
        tuple(_say(solved, teeth)),
        reader.notes,
        (),
    )


def _band(reader: FieldReader, key: str, as_field: str) -> Band | None:
    try:
        found, note = read_band(key, reader.quantities.get(key, Typed()), as_field)
    except QuantityError as refusal:
        reader.problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
        return None
    if note:
        reader.notes[key] = note
    return found


def _step(reader: FieldReader, k: int, teeth: bool, slip: float) -> TrainStep:
    ratio = reader.number(f"ratio_{k}", 0.01, 100, "Write the ratio as turns of the driver to one of the driven, such as 2.4.")
    wheels: list[Band | None] = []
    for key in (f"driving_{k}", f"driven_{k}"):
        if teeth:
            count = reader.whole(key, 4, 1000, "Count the teeth: a whole number from 4 to 1000.")
            wheels.append(exactly(float(count)) if count else None)
        else:
            wheels.append(_band(reader, key, "train_wheel"))
    return TrainStep(wheels[0], wheels[1], exactly(ratio) if ratio else None, 0.0 if teeth else slip)


def _wheels(solved: Solved, teeth: bool) -> list[WheelRow]:
    found = []
    for k, s in enumerate(solved.steps):
        for role, wheel, speed in (("driving", s.driving, solved.speeds[k]), ("driven", s.driven, solved.speeds[k + 1])):
            if wheel is None:
                continue
            is_found = solved.found == (role, k)
            if teeth:
                whole = _whole(solved, k, role, wheel) if is_found else ()
                text = (
                    f"{wheel.middle:.2f} teeth"
                    if is_found and abs(wheel.middle - round(wheel.middle)) > 1e-6
                    else f"{wheel.middle:.0f} teeth"
                )
                found.append(WheelRow(k + 1, role, text, text, "", "", is_found, wheel.middle, whole))
                continue
            rim = exactly(0.5) * wheel * speed
            found.append(WheelRow(k + 1, role, *wheel.shown("length"), *rim.shown("velocity"), is_found, wheel.middle))
    return found


def _whole(solved: Solved, k: int, role: str, wheel: Band) -> tuple[WholeTeeth, ...]:
    """Whole teeth to either side of what was found, and the last shaft's speed with each."""
    found = []
    for z in sorted({math.floor(wheel.middle), math.ceil(wheel.middle)}):
        share = z / wheel.middle if role == "driving" else wheel.middle / z
        speed = Band(solved.speeds[-1].low * share, solved.speeds[-1].high * share)
        found.append(WholeTeeth(z, speed.shown("rotation")[0]))
    return tuple(found)


def _say(solved: Solved, teeth: bool) -> list[Verdict]:
    if solved.off is not None:
        follows = solved.speeds[-1].shown("rotation")[0]
        if abs(solved.off) < 0.005:
            return [Verdict("unknown", Tone.GOOD, "All of it agrees", f"By the wheels the last shaft turns {follows}.")]
        return [
            Verdict(
                "unknown",
                Tone.WATCH,
                f"By the wheels the last shaft turns {follows}: {solved.off:+.1%} off",
                "Nothing is left out: leave out what you want to know, or put down the difference to slip or to a wrong diameter.",
            )
        ]
    assert solved.found
    what, k = solved.found
    last = solved.speeds[-1]
    if what in ("driving", "driven") and not teeth:
        wheel = getattr(solved.steps[k], what)
        size = wheel.shown("length")
        band = _with_middle(solved, k, what, wheel)
        detail = (
            f"At the middle of that the last shaft turns {band}."
            if wheel.wide
            else "A diameter of the belt's line: the rim is larger, by the groove's table."
        )
        return [Verdict("unknown", Tone.GOOD, f"The {what} wheel of stage {k + 1}: {size[0]} ({size[1]})", detail)]
    if what == "ratio":
        return [
            Verdict(
                "unknown",
                Tone.GOOD,
                f"Stage {k + 1} wants {solved.steps[k].reduction.middle:.3f} to 1",  # type: ignore[union-attr]
                "Give one of its wheels, and the other follows.",
            )
        ]
    if what == "first speed":
        return [Verdict("unknown", Tone.GOOD, f"The first shaft turns {solved.speeds[0].shown('rotation')[0]}", "")]
    if what in ("driving", "driven"):
        wheel = getattr(solved.steps[k], what)
        return [
            Verdict(
                "unknown",
                Tone.GOOD,
                f"The {what} wheel of stage {k + 1} has {wheel.middle:.1f} teeth",
                "Choose a whole number to either side: the speed that each gives stands beside it.",
            )
        ]
    return [
        Verdict(
            "unknown",
            Tone.GOOD,
            f"The last shaft turns {last.shown('rotation')[0]}",
            "" if not last.wide else "The driver is a band, and so is the answer.",
        )
    ]


def _with_middle(solved: Solved, k: int, what: str, wheel: Band) -> str:
    """The last shaft's speeds over the driver's whole range, with the wheel in the middle of its own."""
    total = solved.speeds[0]
    for i, s in enumerate(solved.steps):
        driving, driven = s.driving, s.driven
        if i == k:
            driving, driven = (exactly(wheel.middle), driven) if what == "driving" else (driving, exactly(wheel.middle))
        reduction = driven / driving if driving and driven else s.reduction
        assert reduction
        total = total / reduction * exactly(1 - s.slip)
    return total.shown("rotation")[0]
