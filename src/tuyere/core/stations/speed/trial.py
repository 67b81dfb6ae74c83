"""A trial: readings before and after one change, side by side, and what they say together."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import FIELDS, Note
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.units import KINDS
from tuyere.core.basis.verdict import Problem, Tone, Verdict

CHANGES = {
    "tightened": "belts tightened",
    "slackened": "belts slackened",
    "driver changed": "driver wheel changed",
    "driven changed": "driven wheel changed",
    "adjusted": "adjustable sheave turned",
    "other": "something else",
}
# What is read, and as which field.
READ = {"tach_driver": "tach_driver", "tach_driven": "tach_driven", "pressure": "machine_pressure", "amps": "amps", "noise": "noise"}
LABELS = {
    "tach_driver": "driver shaft",
    "tach_driven": "driven shaft",
    "pressure": "static pressure",
    "amps": "motor amps",
    "noise": "noise",
}
# Differences smaller than this mean nothing: common practice, no source.
_SAME = {"tach_driver": 0.003, "tach_driven": 0.003, "pressure": 0.03, "amps": 0.03, "noise": 0.01}
LEAKS = ("none", "drips", "runs")


@dataclass(frozen=True)
class TrialRow:
    """One quantity before and after, in both systems, its change (a share), and whether that is more than the reading's doubt."""

    key: str
    label: str
    before: tuple[str, str] | None
    after: tuple[str, str] | None
    change: float | None
    real: bool


@dataclass(frozen=True)
class TrialReading:
    """What was read before and after, side by side; what it says; `values`: SI, as before_x and after_x."""

    rows: tuple[TrialRow, ...]
    verdicts: tuple[Verdict, ...]
    values: dict[str, float]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_trial(quantities: Mapping[str, Typed], words: Mapping[str, str]) -> TrialReading:
    """Read both columns; each problem beside its field."""
    reader = FieldReader(quantities, words)
    values: dict[str, float] = {}
    rows = []
    for key, field in READ.items():
        pair = []
        for when in ("before", "after"):
            found = reader.value(f"{when}_{key}", field)
            if found is not None:
                values[f"{when}_{key}"] = found
            pair.append(found)
        rows.append(_row(key, FIELDS[field].kind, *pair))
    verdicts = tuple(_say(words.get("change", ""), values, words)) if not reader.problems else ()
    return TrialReading(tuple(rows), verdicts, values, reader.notes, tuple(reader.problems))


def _row(key: str, kind: str, before: float | None, after: float | None) -> TrialRow:
    change = after / before - 1 if before and after else None
    unit = " dB(A)" if key == "noise" else ""
    decimals = 0 if key == "noise" else KINDS[kind].us_decimals if kind != "rotation" else 0

    def told(value: float | None) -> tuple[str, str] | None:
        if value is None:
            return None
        return show(value, kind, System.US, decimals) + unit, show(value, kind, System.SI, None if kind != "number" else 0) + unit

    return TrialRow(key, LABELS[key], told(before), told(after), change, change is not None and abs(change) > _SAME[key])


def _change(values: Mapping[str, float], key: str) -> float | None:
    before, after = values.get(f"before_{key}"), values.get(f"after_{key}")
    return after / before - 1 if before and after else None


def _say(change: str, values: Mapping[str, float], words: Mapping[str, str]) -> list[Verdict]:
    found = []
    pressure, amps, noise = (_change(values, k) for k in ("pressure", "amps", "noise"))
    driven, driver = _change(values, "tach_driven"), _change(values, "tach_driver")
    turned = driven - (driver or 0.0) if driven is not None else None
    if change in ("tightened", "slackened"):
        found += _slipped(change, turned, pressure)
    elif turned is not None and pressure is not None:
        found.append(_fan_law(turned, pressure))
    if amps is not None and turned is not None and turned > 0.01 and amps > 0:
        found.append(
            Verdict(
                "trial",
                Tone.OPEN,
                f"{amps:+.0%} amps for {turned:+.1%} speed",
                "On a fan or centrifugal pump power goes with the cube of speed; look at the plate before going further.",
            )
        )
    if noise is not None and abs(values["after_noise"] - values["before_noise"]) >= 3:
        louder = values["after_noise"] - values["before_noise"]
        found.append(
            Verdict(
                "trial",
                Tone.OPEN if louder < 0 else Tone.WATCH,
                f"{abs(louder):.0f} dB {'louder' if louder > 0 else 'quieter'}",
                "3 dB is twice the sound power: plainly heard.",
            )
        )
    before, after = (words.get(f"{w}_leak", "") for w in ("before", "after"))
    if before in LEAKS and after in LEAKS and before != after:
        worse = LEAKS.index(after) > LEAKS.index(before)
        found.append(
            Verdict(
                "trial",
                Tone.WATCH if worse else Tone.GOOD,
                f"It leaked {before}, now {after}" if before != "none" else f"It leaks now: {after}",
                "Speed raises a pump's pressure and wears its packing." if worse else "",
            )
        )
    return found or [
        Verdict(
            "trial",
            Tone.OPEN,
            "Read both columns: before, and after one change",
            "One change at a time, everything else as it was: doors closed, same dampers, warm.",
        )
    ]


def _slipped(change: str, turned: float | None, pressure: float | None) -> list[Verdict]:
    grip = "tight" if change == "tightened" else "slack"
    if turned is not None:
        gained = turned if change == "tightened" else -turned
        if abs(turned) <= _SAME["tach_driven"]:
            return [
                Verdict(
                    "trial",
                    Tone.GOOD,
                    f"The same speed {grip} or not: it was not slipping",
                    "More tension buys nothing here and costs bearings and bushings.",
                )
            ]
        if gained > 0:
            return [
                Verdict(
                    "trial",
                    Tone.WATCH,
                    f"{gained:.1%} of the speed was slip",
                    "Tension brought it back: gauge it, and look for glazed sides.",
                )
            ]
        return [Verdict("trial", Tone.OPEN, "The change went the other way", "Something else changed with it: read both columns again.")]
    if pressure is None:
        return []
    if abs(pressure) <= _SAME["pressure"]:
        return [
            Verdict(
                "trial",
                Tone.GOOD,
                f"The same static pressure {grip} or not: it was not slipping",
                f"Pressure goes as the square of speed: within {_SAME['pressure']:.0%} the speed is the same within half of that.",
            )
        ]
    return [
        Verdict(
            "trial",
            Tone.WATCH,
            f"Static pressure went {pressure:+.0%}: about {pressure / 2:+.0%} in speed",
            "It was slipping, or the ducts changed: read the tachometer to be sure.",
        )
    ]


def _fan_law(turned: float, pressure: float) -> Verdict:
    expected = (1 + turned) ** 2 - 1
    if abs(pressure - expected) <= 0.04 + abs(expected) * 0.15:
        return Verdict(
            "trial",
            Tone.GOOD,
            "Pressure followed speed as a fan's does",
            f"{turned:+.1%} speed, {pressure:+.0%} pressure ({expected:+.0%} by the fan laws): the ducts are the same.",
        )
    return Verdict(
        "trial",
        Tone.OPEN,
        "Pressure did not follow speed",
        f"{turned:+.1%} speed would be {expected:+.0%} pressure, it is {pressure:+.0%}: a door, filter or damper is not as it was.",
    )
