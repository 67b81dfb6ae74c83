"""Step cones from what was typed: a pair to make, or a pair that is there; its speeds, and a conversion's before and after."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import both, shown
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds import v_belt
from tuyere.core.mechanics.open_belt import GeometryError
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT_M_PER_S
from tuyere.core.stations.speed.cones import ConeStep, Converted, as_found, design, geometric

MOST_STEPS = 8
_LOOSE = 0.004  # of the length: a belt takes up about that before it runs slack on another step. Common practice, no source; low


@dataclass(frozen=True)
class StepRow:
    """One step as shown and as drawn (m).

    Diameters over both rims, ratio, driven speed, the belt's line it wants, and its tension against the tightest step.
    """

    number: int
    driving: tuple[str, str]
    driven: tuple[str, str]
    driving_m: float
    driven_m: float
    ratio: float
    speed: tuple[str, str] | None
    length: tuple[str, str]
    short_m: float
    short: tuple[str, str]


@dataclass(frozen=True)
class ConvertedRow:
    """One range before and after: speeds, and how torque goes the other way."""

    before: tuple[str, str]
    after: tuple[str, str]
    speed_change: float
    torque: float


@dataclass(frozen=True)
class ConesReading:
    """The steps, conversions, what to say; no steps until enough is known. `centre_m` for the drawing."""

    steps: tuple[StepRow, ...]
    centre_m: float | None
    conversions: tuple[ConvertedRow, ...]
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


@dataclass(frozen=True)
class _Rim:
    """How the belt's line lies to the rim: in a V-groove by the groove's table, on a flat face half the belt's thickness over it."""

    section: v_belt.Section | None
    half_m: float

    def line(self, rim_m: float) -> float:
        return v_belt.datum_from_outside(self.section, rim_m) if self.section else rim_m + 2 * self.half_m

    @property
    def over_m(self) -> float:
        return v_belt.pitch_over_datum(self.section) if self.section else 0.0

    def rim(self, line_m: float) -> float:
        return v_belt.outside_from_datum(self.section, line_m) if self.section else line_m - 2 * self.half_m


def _section(name: str) -> v_belt.Section | None:
    return v_belt.sections().get(name)


def read_cones(quantities: Mapping[str, Typed], words: Mapping[str, str], count: int) -> ConesReading:
    """Read a pair to make (`mode` design: first driving wheel, slowest and fastest ratio or each of them) or one that is there."""
    reader = FieldReader(quantities, words)
    centre, speed = reader.value("centre_distance"), reader.value("cone_speed", "train_speed")
    rim = _Rim(_section(words.get("section", "")), (reader.value("cone_thickness", "flat_thickness") or 0.0) / 2)
    crossed = words.get("lay") == "crossed"
    count = max(1, min(count, MOST_STEPS))
    try:
        if words.get("mode") == "found":
            pairs = [(reader.value(f"driving_{k}", "train_wheel"), reader.value(f"driven_{k}", "train_wheel")) for k in range(1, count + 1)]
            known = [(rim.line(d), rim.line(big)) for d, big in pairs if d is not None and big is not None]
            steps = as_found(known, centre, crossed, rim.over_m) if centre and known and not reader.problems else []
        else:
            ratios = _ratios(reader, count)
            first = reader.value("first_driving", "train_wheel")
            steps = (
                design(ratios, rim.line(first), centre, crossed, rim.over_m) if centre and first and ratios and not reader.problems else []
            )
        rows = tuple(_rows(steps, rim, speed))
    except (GeometryError, v_belt.BeltError) as reason:
        reader.problems.append(Problem("centre_distance", str(reason)))
        steps, rows = [], ()
    conversions = tuple(_conversions(reader))
    return ConesReading(rows, centre, conversions, tuple(_say(steps, words, speed, conversions, rim)), reader.notes, tuple(reader.problems))


_RATIO = "Write the ratio as turns of the driver to one of the driven, such as 2.4."


def _ratios(reader: FieldReader, count: int) -> list[float]:
    """Each step's own ratio; those left out fall in even percentages between the slowest and the fastest."""
    each = [reader.number(f"ratio_{k}", 0.05, 20, _RATIO) for k in range(1, count + 1)]
    if all(r is not None for r in each):
        return [r for r in each if r is not None]
    if each[0] is None or each[-1] is None:
        return []
    even = geometric(each[0], each[-1], count)
    return [r if r is not None else even[k] for k, r in enumerate(each)]


def _rows(steps: list[ConeStep], rim: _Rim, speed: float | None) -> list[StepRow]:
    if not steps:
        return []
    longest = max(s.length_m for s in steps)
    found = []
    for number, s in enumerate(steps, 1):
        driving, driven = rim.rim(s.driving_m), rim.rim(s.driven_m)
        sizes = [shown(v, "length", decimals=(3, 1)) for v in (driving, driven)]
        found.append(
            StepRow(
                number,
                sizes[0],
                sizes[1],
                driving,
                driven,
                s.ratio,
                shown(speed / s.ratio, "rotation") if speed else None,
                shown(s.length_m, "length", decimals=(2, 1)),
                longest - s.length_m,
                shown(longest - s.length_m, "length", decimals=(2, 1)),
            )
        )
    return found


def _conversions(reader: FieldReader) -> list[ConvertedRow]:
    found = []
    for k in range(1, 5):
        before, after = reader.value(f"before_{k}", "train_speed"), reader.value(f"after_{k}", "train_speed")
        if before and after:
            c = Converted(before, after)
            found.append(ConvertedRow(shown(before, "rotation"), shown(after, "rotation"), after / before - 1, c.torque - 1))
    return found


def _say(
    steps: list[ConeStep], words: Mapping[str, str], speed: float | None, conversions: tuple[ConvertedRow, ...], rim_of: _Rim
) -> list[Verdict]:
    found = []
    if not steps:
        what = (
            "Tape both cones step by step, and the centres"
            if words.get("mode") == "found"
            else "Give the centres, the first driving wheel, and the first and last ratio"
        )
        found.append(Verdict("cones", Tone.OPEN, what, "The steps stand in one table; those left out fall in even percentages."))
    else:
        spread = max(s.length_m for s in steps) - min(s.length_m for s in steps)
        longest = max(s.length_m for s in steps)
        if words.get("mode") != "found":
            sums = [s.driving_m + s.driven_m for s in steps]
            rule = (
                "The sum of each pair is the same: exact for a crossed belt."
                if words.get("lay") == "crossed"
                else f"The sums of the pairs differ by {both(max(sums) - min(sums), decimals=(3, 2))}: on an open belt equal sums would run slack in the middle."
            )
            found.append(
                Verdict(
                    "cones",
                    Tone.GOOD,
                    f"One belt of {both(longest, decimals=(2, 1))} fits every step",
                    f"Its line, at these centres. {rule}",
                )
            )
        elif spread <= _LOOSE * longest:
            found.append(
                Verdict(
                    "cones",
                    Tone.GOOD,
                    f"One belt fits every step, within {both(spread, decimals=(2, 1))}",
                    "Within what the take-up and the belt give.",
                )
            )
        else:
            slack = min(range(len(steps)), key=lambda k: steps[k].length_m) + 1
            found.append(
                Verdict(
                    "cones",
                    Tone.WATCH,
                    f"Step {slack} runs slack by {both(spread, decimals=(2, 1))}",
                    "A belt tight on the longest step is that much too long there: the take-up must move at each change, or that step is "
                    "turned again.",
                )
            )
        if speed:
            rim = max(max(rim_of.rim(s.driving_m) * speed, rim_of.rim(s.driven_m) * speed / s.ratio) / 2 for s in steps)
            if rim > CAST_IRON_RIM_LIMIT_M_PER_S:
                most = CAST_IRON_RIM_LIMIT_M_PER_S / to_si(1, "velocity", "ft/min")
                found.append(
                    Verdict(
                        "cones",
                        Tone.STOP,
                        f"A rim would run {rim / to_si(1, 'velocity', 'ft/min'):.0f} ft/min",
                        f"Cast iron goes to {most:.0f} ft/min: smaller cones, or a slower driver.",
                    )
                )
    for c in conversions:
        faster = c.speed_change
        if abs(faster) > 0.03:
            found.append(
                Verdict(
                    "conversion",
                    Tone.WATCH if faster > 0.2 else Tone.OPEN,
                    f"{c.before[0]} becomes {c.after[0]}: {faster:+.0%} in speed, {c.torque:+.0%} in torque",
                    "The same power at another speed. "
                    + (
                        "Its bearings, cutters and guard were made for the old one: look up its highest speed; what wanted force has "
                        "less of it."
                        if faster > 0
                        else "It cuts with more force, slower."
                    ),
                )
            )
    return found
