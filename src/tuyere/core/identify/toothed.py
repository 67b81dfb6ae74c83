"""Which toothed belt or chain: what was typed, against every profile or chain of the tables, and what to say of it."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from functools import cache
from typing import Literal

from tuyere.core.drives import roller_chain, synchronous
from tuyere.core.entry.field import Note
from tuyere.core.entry.quantity import QuantityError, whole_number
from tuyere.core.entry.typed import Given, Typed, given
from tuyere.core.identify.by_size import Ask, Kind, Matches, Seen, Size, match, next_ask
from tuyere.core.working.figure import fine
from tuyere.core.working.verdict import Problem, Tone, Verdict

Family = Literal["synchronous", "roller chain"]
FAMILIES: tuple[Family, ...] = ("synchronous", "roller chain")
SIZES: dict[Family, tuple[str, ...]] = {
    "synchronous": ("tooth_height", "belt_thickness", "belt_width", "wheel_outside"),
    "roller chain": ("roller_diameter", "inner_width", "plate_height", "plate_thickness", "pin_diameter", "wheel_caliper"),
}
ANSWERS: dict[Family, dict[str, tuple[str, ...]]] = {
    "synchronous": {"shape": ("straight", "round"), "material": ("rubber", "polyurethane")},
    "roller chain": {"body": ("roller", "bushing", "forged"), "plates": ("figure-8", "straight")},
}
# Tools' doubt where each size is taken (m): callipers; a width by rule. Common practice, no source.
_TOOLS = {"tooth_height": 0.00012, "belt_thickness": 0.0001, "roller_diameter": 0.00006, "inner_width": 0.0001, "plate_height": 0.00015,
          "plate_thickness": 0.00005, "pin_diameter": 0.00005}  # fmt: skip
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
_WORN_ROLLER = 0.004  # share that a roller loses before anybody throws the chain away: common practice, no source


@dataclass(frozen=True)
class ToothedReading:
    """What the fields understood, their problems, the ranking, and what to ask next."""

    family: Family
    seen: Seen
    matches: Matches
    ask: Ask | None
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    named: synchronous.ToothedBelt | None
    strands: int | None
    width_m: float | None = None


@cache
def kinds(family: Family) -> tuple[Kind, ...]:
    """Every candidate of a family."""
    if family == "synchronous":
        return tuple(_profile_kind(p) for p in synchronous.profiles().values())
    return tuple(_chain_kind(c) for c in roller_chain.chains().values())


def _profile_kind(p: synchronous.Profile) -> Kind:
    sizes = {
        "tooth_height": Size(p.tooth_height_m, max(0.0001, 0.03 * p.tooth_height_m)),
        "belt_thickness": Size(p.belt_height_m, max(0.00012, 0.025 * p.belt_height_m)),
    }
    shape = {"straight": 0.97, "round": 0.03} if p.form == "straight" else {"straight": 0.03, "round": 0.97}
    material = {"rubber": 0.9, "polyurethane": 0.1} if p.material == "rubber" else {"rubber": 0.04, "polyurethane": 0.96}
    return Kind(p.name, p.common, p.pitch_m, False, sizes, {"shape": shape, "material": material})


def _chain_kind(c: roller_chain.Chain) -> Kind:
    made = {
        "roller_diameter": (c.roller_m, 0.004),
        "inner_width": (c.inner_width_m, 0.012),
        "plate_height": (c.plate_height_m, 0.02),
        "plate_thickness": (c.plate_thickness_m, 0.04),
        "pin_diameter": (c.pin_m, 0.01),
    }
    sizes = {key: Size(value * (1 - _WORN_ROLLER / 2 if key == "roller_diameter" else 1), max(0.00004, share * value)) for key, (value, share) in made.items() if value}  # fmt: skip
    body = {"roller": {"roller": 0.95, "bushing": 0.05}, "large roller": {"roller": 0.99}, "bushing": {"bushing": 0.8, "roller": 0.2}, "forged": {"forged": 0.99}}[c.body]  # fmt: skip
    plates = {"figure-8": 0.9, "straight": 0.1} if c.plates == "figure-8" else {"straight": 0.95, "figure-8": 0.05}
    lacks = ("roller_diameter", "inner_width", "plate_thickness") if c.series == "detachable" else ()
    return Kind(c.name, c.common, c.pitch_m, True, sizes, {"body": body, "plates": plates}, lacks)


def _with_wheel(family: Family, teeth: int) -> tuple[Kind, ...]:
    """The candidates with what a wheel of so many teeth would measure: over its tips, or for a sprocket in its bottoms."""
    found = []
    for kind in kinds(family):
        if family == "synchronous":
            size = synchronous.outside_diameter(synchronous.profile(kind.name), teeth)
            spread = max(0.0001, 0.0012 * size)
            key = "wheel_outside"
        else:
            of = roller_chain.chain(kind.name)
            size = roller_chain.caliper_diameter(of.pitch_m, teeth, of.on_sprocket_m)
            spread = max(0.0002, 0.003 * size)  # worn bottoms read low
            key = "wheel_caliper"
        found.append(replace(kind, sizes={**kind.sizes, key: Size(size, spread)}))
    return tuple(found)


def read_toothed(family: Family, quantities: Mapping[str, Typed], words: Mapping[str, str]) -> ToothedReading:
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
    sizes = {key: found for key in SIZES[family] if key != "belt_width" and (found := one(key))}
    width = one("belt_width")
    teeth = _count(words.get("wheel_teeth", ""), problems, "wheel_teeth", 5)
    wheel = next((key for key in ("wheel_outside", "wheel_caliper") if key in sizes), None)
    if wheel and teeth is None:
        sizes.pop(wheel)
        if not any(p.field == "wheel_teeth" for p in problems):
            problems.append(Problem("wheel_teeth", "Count the wheel's teeth: its diameter says the pitch then."))
    answers = {q: words[q] for q, known in ANSWERS[family].items() if words.get(q, "") in known}
    label = words.get("label", "").strip()
    named, fits = _label(family, label, problems)
    seen = Seen(span, count, sizes, answers, fits)
    matches = match(_with_wheel(family, teeth) if wheel and teeth else kinds(family), seen)
    questions = tuple(q for q in ANSWERS[family])
    ask = next_ask(matches, seen, {k: v for k, v in _TOOLS.items() if k in SIZES[family]}, questions)
    belt = named if isinstance(named, synchronous.ToothedBelt) else None
    strands = named[1] if isinstance(named, tuple) else None
    return ToothedReading(
        family, seen, matches, ask, _verdicts(family, matches, seen), notes, tuple(problems), belt, strands, width.value if width else None
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


def _label(
    family: Family, text: str, problems: list[Problem]
) -> tuple[synchronous.ToothedBelt | tuple[roller_chain.Chain, int] | None, Callable[[Kind], float] | None]:
    """What a name on it says: the belt or chain it names, and how well it fits each candidate. ? stands for a character nobody can read."""
    if not text or text == "-":
        return None, None
    tries = [text.replace(_UNREAD, d) for d in "0123456789"] if _UNREAD in text else [text]
    found: list[synchronous.ToothedBelt | tuple[roller_chain.Chain, int]] = []
    refusal = ""
    for tried in tries:
        try:
            found.append(synchronous.parse_name(tried) if family == "synchronous" else roller_chain.parse_mark(tried))
        except (synchronous.ToothedError, roller_chain.ChainError) as reason:
            refusal = str(reason)
    if not found:
        problems.append(Problem("label", refusal))
        return None, None
    names = {p.name for f in found for p in (_forms(f) if isinstance(f, synchronous.ToothedBelt) else (f[0],))}
    return (found[0] if len(found) == 1 else None), lambda kind: _FITS if kind.name in names else _MISREAD


def _forms(found: synchronous.ToothedBelt) -> tuple[synchronous.Profile, ...]:
    return synchronous.forms_of(found.profile) if found.form_open else (found.profile,)


def _verdicts(family: Family, matches: Matches, seen: Seen) -> tuple[Verdict, ...]:
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
    found += _alike(family, first.kind.name)
    if first.grown:
        found.append(_wear(*first.grown))
    return tuple(found)


def _alike(family: Family, name: str) -> list[Verdict]:
    """What it nearly, but not, fits."""
    if family == "roller chain":
        warning = roller_chain.chain(name).nearly_fits
        return [Verdict("alike", Tone.OPEN, f"What {name} is mixed up with", warning)] if warning else []
    others = [p.name for p in synchronous.forms_of(synchronous.profile(name))[1:]]
    if not others:
        return []
    detail = "They share pitch and name but not the tooth: they do not mesh. Lay a tooth on the template, and match the pulleys' own mark."
    return [Verdict("alike", Tone.WATCH, f"{name}, {' and '.join(others)} look alike", detail)]


def _wear(share: float, std: float) -> Verdict:
    """What the measured pitch says of wear. Limits: American Chain Association; 1.5 % on fixed centres general practice."""
    told = f"{share * 100:.1f} % ± {2 * std * 100:.1f} longer than new"
    if share > 0.03:
        return Verdict(
            "wear", Tone.STOP, f"Worn out: {told}", "Over 3 % it climbs the teeth: new chain, and new sprockets where teeth are hooked."
        )
    if share > 0.015:
        return Verdict("wear", Tone.WATCH, f"Worn: {told}", "Past 1.5 % it is worn out on fixed centres, or where it times or lifts; 3 % elsewhere (2/N on over 66 teeth).")  # fmt: skip
    if std > 0.004:
        return Verdict("wear", Tone.OPEN, f"It reads {told}", "Measure over more pitches, pulled straight, to say how worn it is.")
    return Verdict(
        "wear", Tone.GOOD, f"Little worn: {told}", "Measured over pulled-straight links; 3 % is the end, 1.5 % on fixed centres."
    )
