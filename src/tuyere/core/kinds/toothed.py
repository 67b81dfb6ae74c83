"""Which toothed belt or chain: what was typed, against every profile or chain of the tables, and what to say of it."""

from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import fine
from tuyere.core.basis.quantity import QuantityError, whole_number
from tuyere.core.basis.typed import Given, Typed, given
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds.by_size import ExpectedSize, Matches, NextSize, Seen, Sized, match, next_ask
from tuyere.core.kinds.template import Template
from tuyere.core.kinds.unknown import NotKnownError

# Tools' doubt where each size is taken (m): callipers; a width by rule. Common practice, no source.
_TOOLS = {
    "tooth_height": 0.00012,
    "belt_thickness": 0.0001,
    "roller_diameter": 0.00006,
    "inner_width": 0.0001,
    "plate_height": 0.00015,
    "plate_thickness": 0.00005,
    "pin_diameter": 0.00005,
}
HOW = {
    "pitch_span": "Measure over many of them, at least ten: from one edge to the same edge of the last, and count the steps between.",
    "tooth_height": "Measure how high a tooth stands, with the callipers' depth rod in a gap.",
    "belt_thickness": "Measure the whole thickness, from the back to the tip of a tooth.",
    "roller_diameter": "Measure a roller with callipers, between its plates.",
    "inner_width": "Measure the gap between the inner plates, where the tooth goes in.",
    "plate_height": "Measure how high an inner plate is.",
    "plate_thickness": "Measure how thick a link plate is.",
    "pin_diameter": "Measure the end of a pin.",
    "shape": "Look at a tooth from the side: straight flanks or round?",
    "material": "Look at the belt: black rubber, or a clear or white plastic?",
    "body": "Does a roller turn on the bushing, is there a plain bushing, or is it a forged link?",
    "plates": "Look at the plates from the side: waisted like an 8, or straight?",
    "label": "Clean it and look for a name or a mark; a part of it will do.",
}


@dataclass(frozen=True)
class Named:
    """What a name says.

    The candidates that bear it; and, where it says so, the belt's designation, teeth, width (m), a chain's strands; whether the belt is
    listed. `of`: the belt or chain itself.
    """

    names: frozenset[str]
    designation: str = ""
    teeth: int | None = None
    length_m: float | None = None
    width_m: float | None = None
    strands: int | None = None
    listed: bool = False
    of: object = None


class Recognised(ABC):
    """What is told apart by its teeth.

    `sizes`: what can be measured of it; `answers`: what the eye sees; `wheel_size`: what is measured of a wheel.
    """

    sizes: tuple[str, ...]
    answers: Mapping[str, tuple[str, ...]]
    wheel_size: str

    @abstractmethod
    def names(self) -> tuple[str, ...]:
        """Every profile or chain there is."""

    @abstractmethod
    def candidates(self) -> tuple[Sized, ...]:
        """Each of them with what it should measure."""

    @abstractmethod
    def wheel_measures(self, name: str, teeth: int) -> ExpectedSize:
        """What a wheel of so many teeth measures, at `wheel_size`."""

    @abstractmethod
    def named(self, text: str) -> Named:
        """What a name on it says. Raises NotKnownError."""

    @abstractmethod
    def alike(self, name: str) -> list[Verdict]:
        """What it nearly, but not, fits."""

    @abstractmethod
    def described(self, name: str) -> tuple[str, Template]:
        """What it is, in words, and what to draw of it."""


@dataclass(frozen=True)
class ToothedReading:
    """What the fields understood, their problems, the ranking, and what to ask next."""

    family: Recognised
    seen: Seen
    matches: Matches
    ask: NextSize | None
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    named: Named | None
    width_m: float | None = None

    @property
    def strands(self) -> int | None:
        """Of a chain, by its mark."""
        return self.named.strands if self.named else None


def read_toothed(family: Recognised, quantities: Mapping[str, Typed], words: Mapping[str, str]) -> ToothedReading:
    """Read what was typed and rank the family's candidates; each field on its own, its problem kept beside it."""
    notes: dict[str, Note] = {}
    problems: list[Problem] = []

    def one(key: str) -> Given | None:
        try:
            found, note = given(key, quantities[key]) if key in quantities else (None, None)
        except QuantityError as refusal:
            problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
            return None
        if found and note:
            notes[key] = note
        return found

    span, count = one("pitch_span"), _count(words.get("pitch_count", ""), problems)
    if span and count is None and not any(p.field == "pitch_count" for p in problems):
        problems.append(Problem("pitch_count", "Count the steps between the two edges measured, such as 20."))
    sizes = {key: found for key in family.sizes if key != "belt_width" and (found := one(key))}
    width = one("belt_width")
    teeth = _count(words.get("wheel_teeth", ""), problems, "wheel_teeth", 5)
    wheel = family.wheel_size if family.wheel_size in sizes else None
    if wheel and teeth is None:
        sizes.pop(wheel)
        if not any(p.field == "wheel_teeth" for p in problems):
            problems.append(Problem("wheel_teeth", "Count the wheel's teeth: its diameter says the pitch then."))
    answers = {q: words[q] for q, known in family.answers.items() if words.get(q, "") in known}
    label = words.get("label", "").strip()
    named, fits = _label(family, label, problems)
    seen = Seen(span, count, sizes, answers, fits)
    matches = match(_with_wheel(family, teeth) if wheel and teeth else family.candidates(), seen)
    questions = tuple(q for q in family.answers)
    ask = next_ask(matches, seen, {k: v for k, v in _TOOLS.items() if k in family.sizes}, questions)
    return ToothedReading(
        family, seen, matches, ask, _verdicts(family, matches, seen), notes, tuple(problems), named, width.value if width else None
    )


def _count(text: str, problems: list[Problem], field: str = "pitch_count", least: int = 1) -> int | None:
    text = text.strip()
    if text in ("", "-"):
        return None
    counted = whole_number(text, least, 500)
    if counted is not None:
        return counted
    what = "the steps between the two edges measured" if field == "pitch_count" else "the wheel's teeth"
    problems.append(Problem(field, f"Count {what}: a whole number from {least} to 500."))
    return None


_UNREAD = "?"
_FITS, _MISREAD = 1.0, 1e-4


def _label(family: Recognised, text: str, problems: list[Problem]) -> tuple[Named | None, Callable[[Sized], float] | None]:
    """What a name on it says, and how well it fits each candidate. ? stands for a character nobody can read."""
    if not text or text == "-":
        return None, None
    tries = [text.replace(_UNREAD, d) for d in "0123456789"] if _UNREAD in text else [text]
    found: list[Named] = []
    refusal = ""
    for tried in tries:
        try:
            found.append(family.named(tried))
        except NotKnownError as reason:
            refusal = str(reason)
    if not found:
        problems.append(Problem("label", refusal))
        return None, None
    names = frozenset[str]().union(*(f.names for f in found))
    return (found[0] if len(found) == 1 else None), lambda kind: _FITS if kind.name in names else _MISREAD


def _with_wheel(family: Recognised, teeth: int) -> tuple[Sized, ...]:
    """The candidates with what a wheel of so many teeth would measure."""
    return tuple(
        replace(kind, sizes={**kind.sizes, family.wheel_size: family.wheel_measures(kind.name, teeth)}) for kind in family.candidates()
    )


def _verdicts(family: Recognised, matches: Matches, seen: Seen) -> tuple[Verdict, ...]:
    if not (seen.span and seen.count) and not seen.named and not seen.sizes:
        return (Verdict("identify", Tone.OPEN, "Measure the pitch first, over as many as you can", HOW["pitch_span"]),)
    if not matches.found or matches.none_of_them > 0.5:
        return (
            Verdict(
                "identify", Tone.WATCH, "Nothing in these tables measures so", "Measure again, over more of them; or it is a maker's own."
            ),
        )
    first = matches.found[0]
    rivals = [m.kind.name for m in matches.found[1:4] if m.probability > 0.03]
    sure = first.probability
    headline = f"It is {first.kind.name}" if sure > 0.95 else f"Most likely {first.kind.name}"
    detail = f"{sure:.0%}" + (f"; it could be {' or '.join(rivals)}" if rivals else "") + f". New pitch {fine(first.kind.pitch_m)}."
    found = [Verdict("identify", Tone.GOOD if sure > 0.95 else Tone.OPEN, headline, detail)]
    found += family.alike(first.kind.name)
    if first.grown:
        found.append(_wear(*first.grown))
    return tuple(found)


def _wear(share: float, std: float) -> Verdict:
    """What the measured pitch says of wear. Limits: American Chain Association; 1.5 % on fixed centres general practice."""
    told = f"{share * 100:.1f} % ± {2 * std * 100:.1f} longer than new"
    if share > 0.03:
        return Verdict(
            "wear", Tone.STOP, f"Worn out: {told}", "Over 3 % it climbs the teeth: new chain, and new sprockets where teeth are hooked."
        )
    if share > 0.015:
        return Verdict(
            "wear",
            Tone.WATCH,
            f"Worn: {told}",
            "Past 1.5 % it is worn out on fixed centres, or where it times or lifts; 3 % elsewhere (2/N on over 66 teeth).",
        )
    if std > 0.004:
        return Verdict("wear", Tone.OPEN, f"It reads {told}", "Measure over more pitches, pulled straight, to say how worn it is.")
    return Verdict(
        "wear", Tone.GOOD, f"Little worn: {told}", "Measured over pulled-straight links; 3 % is the end, 1.5 % on fixed centres."
    )
