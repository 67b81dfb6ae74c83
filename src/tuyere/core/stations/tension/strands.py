"""What the tool showed of each strand, read into its tension with its doubt."""

from collections.abc import Sequence
from dataclasses import replace

from tuyere.core.basis.field import FIELDS
from tuyere.core.basis.figure import Figure, Line, figure, shown
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Given, Typed
from tuyere.core.basis.uncertainty import UFloat, exact, uncertain
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.tension import measured
from tuyere.core.mechanics.tension.beam import SlackError
from tuyere.core.mechanics.tension.statics import SteepError
from tuyere.core.stations.tension.figures import FORMULAS, STATICS, strand_figure
from tuyere.core.stations.tension.methods import TENSION, Setting, TensionMethod
from tuyere.core.stations.tension.typed import TypedTension

_METER = 0.06  # a tension meter's own word, one standard deviation: common practice, no source


_USUAL = {"force": "force", "frequency": "frequency", "mark": "mark", "sag": "sag", "belt_tension": "force", "weight": "weight"}


def values_of(method: TensionMethod, typed: TypedTension, reader: FieldReader) -> list[Given]:
    """What the tool showed; a meter that says force instead of its note is read as force."""
    inner = FieldReader({f"force_{i}": v for i, v in enumerate(typed.values, 1)}, {}, reader.notes, reader.problems)
    tool = typed.words.get("tool") or (method.tools[0] if method.tools else None)
    found = [inner.given(f"force_{i}", method.reads, tool if method.reads == "force" else None) for i in range(1, len(typed.values) + 1)]
    _ask_of_tenfold(found, typed.values, reader)
    return [f for f in found if f]


_TENFOLD = (8.0, 12.5)  # a point left out, or slipped: common practice, no source


def _ask_of_tenfold(found: Sequence[Given | None], typed: Sequence[Typed], reader: FieldReader) -> None:
    """A reading that is ten times its neighbours is asked about before it is used; typed with its unit, it is meant."""
    known = [f.value for f in found if f]
    if len(known) < 2:
        return
    for i, (one, text) in enumerate(zip(found, typed, strict=True), 1):
        others = sorted(f.value for k, f in enumerate(found, 1) if f and k != i)
        if one is None or not others or any(c.isalpha() or c == '"' for c in text.text):
            continue
        usual = others[len(others) // 2]
        if usual > 0 and _TENFOLD[0] <= one.value / usual <= _TENFOLD[1]:
            unit = reader.notes[f"force_{i}"].unit if f"force_{i}" in reader.notes else ""
            reader.problems.append(
                Problem(
                    f"force_{i}",
                    f"That is ten times its neighbours: is the point missing? If it is so, write it with its unit: {text.text.strip()} "
                    f"{unit}.",
                )
            )


def strands_of(
    method: TensionMethod, at: Setting, values: Sequence[Given], typed: TypedTension, reader: FieldReader, page: Page
) -> tuple[UFloat, ...]:
    """The tension of each strand by what the tool showed; puts their figures on the page."""
    found: list[UFloat] = []
    meter = reader.given("note_tension", "belt_tension") if method.key == "note" and not values else None
    if meter:
        found.append(uncertain(meter.value, _METER * meter.value, "the meter"))
        page.put(
            strand_figure(
                1,
                found[0],
                Line("", "meter, in force", *shown(meter.value, "force"), meter.origin, meter.origin),
                "as the meter says",
                at,
                method,
            ),
            found[0],
        )
    for i, value in enumerate(values, 1):
        shows = uncertain(
            value.value,
            max(value.std, measured.usual(value.value, _USUAL[method.reads]).s if method.reads != "force" else 0.0),
            method.value.lower(),
        )
        slack = False
        try:
            tension = TENSION[method.key](at, shows)
        except SlackError as reason:
            if method.key not in SLACK:
                reader.problems.append(Problem(f"force_{i}", str(reason)))
                continue
            tension, slack = _slack(method, at, shows), True
        except SteepError as reason:
            reader.problems.append(Problem(f"force_{i}", str(reason)))
            continue
        found.append(tension)
        line = Line(f"P_{i}", method.value, *shown(value.value, FIELDS[method.reads].kind), value.origin, value.origin)
        told = strand_figure(i, tension, line, FORMULAS[method.key], at, method)
        page.put(told if not slack else _said_slack(told, 2 * tension.n), tension)
    if found:
        average = sum(found[1:], found[0]) / len(found)
        lines = [page.figures[k].line() for k in page.figures if k.startswith("strand_")]
        page.put(
            figure(
                "strand_average",
                f"average of a {at.stage.strand.one}",
                "T_m",
                "force",
                average,
                lines,
                "mean of what was read",
                STATICS,
                Confidence.MEDIUM,
            ),
            average,
        )
        if len(found) > 1:
            spread = (max(found, key=lambda t: t.n) - min(found, key=lambda t: t.n)) / average
            page.put(
                figure(
                    "strand_spread",
                    "spread over the set",
                    "ΔT/T_m",
                    "share",
                    spread,
                    lines,
                    "(highest - lowest) / mean",
                    "rule of thumb, no source",
                    Confidence.LOW,
                    limits="Up to 20 % is a matched set.",
                ),
                spread,
            )
    return tuple(found)


SLACK = ("gauge", "scale", "note", "clip")  # what a tool shows of a strand without tension is its stiffness alone


def _slack(method: TensionMethod, at: Setting, shows: UFloat) -> UFloat:
    """A strand too slack for its tension to be reckoned: somewhere from nought to what the tool would show the least more of."""
    most = next((t.n for k in (1, 2, 3, 4, 6, 8, 12) if (t := _or_none(method, at, shows.n + k * max(shows.s, 0.02 * shows.n)))), 0.0)
    return uncertain(most / 2, max(most / 4, 1e-6), "a strand that is slack")


def _said_slack(told: Figure, below_n: float) -> Figure:
    us, si = shown(below_n, "force")
    return replace(told, us=f"slack, below {us}", si=f"slack, below {si}")


def _or_none(method: TensionMethod, at: Setting, value: float) -> UFloat | None:
    try:
        found = TENSION[method.key](at, exact(value))
    except SlackError:
        return None
    return found if found.n > 0 else None


def stretch_of(stage: TightStage, method: TensionMethod, at: Setting, values: Sequence[Given], page: Page) -> list[Verdict]:
    """Two marks on a belt whose pull by stretch is not known: its stretch against what its material is set to."""
    usual = stage.loop.stretch
    if method.key != "marks" or stage.strand.rigidity_n or not usual or not values:
        return []
    slack = at.more["mark_slack"]
    share = (measured.usual(values[0].value, "mark") - slack) / slack
    marks = [
        Line("", name, *shown(v, "length", decimals=(3, 1)), Origin.MEASURED, Origin.MEASURED)
        for name, v in (("marks, slack", slack.n), ("marks, fitted", values[0].value))
    ]
    page.put(figure("stretch", "stretch", "ε", "share", share, marks, "(fitted - slack)/slack", usual.source, Confidence.LOW), share)
    wants = f"{page.figures['stretch'].us} of stretch, and {usual.low:.1%} to {usual.high:.1%} is set for its material ({usual.source})."
    if share.n < usual.low:
        return [
            Verdict(
                "tension",
                Tone.WATCH,
                "Slack by its stretch",
                f"{wants} Take it up, turn it round a few times, measure the same marks again.",
            )
        ]
    if share.n > usual.high:
        return [Verdict("tension", Tone.WATCH, "Stretched too far", f"{wants} Slacken it, or join it longer.")]
    return [
        Verdict(
            "tension", Tone.GOOD, "Right by its stretch", f"{wants} Keep this reading; fabric and leather are taken up again after a day."
        )
    ]
