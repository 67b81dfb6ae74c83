"""An open-ended toothed belt clamped to a carriage: what its span should hum at for the tension the machine's manual asks.

A taut string of span L (m), mass per length m (kg/m) under tension T (N) hums at f = sqrt(T/m)/(2L), so T = 4 m L² f²: mechanics of
the string, any physics text. The target and its tolerance come from the manual; nothing is assumed for them.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import both
from tuyere.core.basis.limit import limit
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import probability_between, sureness, uncertain, wrapped
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.mechanics.tension.beam import frequency_of, tension_sounding

# What to mind before the span is plucked: common practice, no source.
CARRIAGE = (
    "Set every tension screw back to start, then turn all by the same amount.",
    "Push the carriage hard against the far end; the span runs from the middle of the end block to the end of the carriage.",
)
_PLUCK_STD = 0.02  # a phone's microphone or an ear against a tone, of the frequency: common practice, no source
_SHORT = 20  # belt thicknesses: a shorter span rings stiff and reads high (medium)


def _hum(frequency_hz: float | None) -> str:
    return show(frequency_hz or 0.0, "frequency", System.SI)


@dataclass(frozen=True)
class LinearReading:
    """What was understood: the target's hum at this span and its band (Hz), the tension that was plucked (N) with its doubt; what to say."""

    target_hz: float | None
    low_hz: float | None
    high_hz: float | None
    tension_n: float | None
    tension_std_n: float | None
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_linear(quantities: Mapping[str, Typed], words: Mapping[str, str]) -> LinearReading:
    """Read the free span with the carriage where it stands, mass, target and pluck; each problem beside its field."""
    reader = FieldReader(quantities, words)
    mass, span = reader.given("linear_mass"), reader.given("linear_span", "point_tape", "tape")
    target, pluck = reader.value("linear_target", "belt_tension"), reader.given("linear_pluck", "frequency")
    thickness = reader.value("belt_thickness")
    share = reader.number("linear_within", 1, 60, "Write the manual's tolerance in percent, such as 25.")
    within = share / 100 if share is not None else limit("manual's tolerance").value
    if mass is None or span is None:
        wanted = "mass per length" if mass is None else "free span beside the carriage"
        said = Verdict(
            "linear",
            Tone.OPEN,
            f"The {wanted} is wanted",
            "Mass per length and the target tension stand in the machine's manual; the span is taped with the carriage where it stands.",
        )
        return LinearReading(None, None, None, None, None, (said,), reader.notes, tuple(reader.problems))
    at = [frequency_of(target * k, span.value, mass.value) for k in (1, 1 - within, 1 + within)] if target else [None, None, None]
    tension = (
        wrapped(tension_sounding)(
            uncertain(pluck.value, _PLUCK_STD * pluck.value, "hum"), span.u, uncertain(mass.value, 0.02 * mass.value, "mass")
        )
        if pluck
        else None
    )
    verdicts = []
    if target and tension is not None:
        verdicts.append(_judge(tension.n, target, within, probability_between(tension, target * (1 - within), target * (1 + within))))
    elif target and at[0]:
        verdicts.append(
            Verdict(
                "linear",
                Tone.OPEN,
                f"Pluck the span: it should hum at {_hum(at[0])}",
                f"{_hum(at[1])} to {_hum(at[2])} is within {within:.0%} of {both(target, 'force')}, with the carriage where it stands.",
            )
        )
    else:
        verdicts.append(
            Verdict("linear", Tone.OPEN, "Which tension should it have?", "The machine's manual says; nothing is assumed here.")
        )
    if thickness and span.value < _SHORT * thickness:
        verdicts.append(
            Verdict(
                "linear",
                Tone.WATCH,
                "The span is short: it reads high",
                f"Under {_SHORT} belt thicknesses the belt's own stiffness adds to the hum: move the carriage for a longer one.",
            )
        )
    return LinearReading(
        at[0],
        at[1],
        at[2],
        tension.n if tension is not None else None,
        tension.s if tension is not None else None,
        tuple(verdicts),
        reader.notes,
        tuple(reader.problems),
    )


def _judge(tension: float, target: float, within: float, probability: float) -> Verdict:
    share = tension / target
    read = f"{both(tension, 'force')} plucked, {both(target, 'force')} wanted, within {within:.0%}."
    screws = "Turn every tension screw by the same amount, pluck again, and put the carriage back to the same place first."
    if share < 1 - within:
        return Verdict(
            "linear", Tone.WATCH, f"At {share:.0%} of its tension: tighten it", f"{read} {screws}", sureness(1 - probability).value
        )
    if share > 1 + within:
        return Verdict(
            "linear", Tone.WATCH, f"At {share:.0%} of its tension: slacken it", f"{read} {screws}", sureness(1 - probability).value
        )
    if probability < 2 / 3:
        return Verdict(
            "linear",
            Tone.OPEN,
            f"At {share:.0%} of its tension: on the edge",
            f"{read} Pluck it three times more, and take the middle one.",
            sureness(probability).value,
        )
    return Verdict("linear", Tone.GOOD, f"At {share:.0%} of its tension: as it should be", read, sureness(probability).value)
