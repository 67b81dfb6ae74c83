"""Tension from what a tool shows, with its doubt: one function a method.

Inputs are uncertain values in SI; `usual` gives a bare number its tool's doubt.

Shares of doubt (one standard deviation) are common practice, no source; the budget behind them: spring gauge 12 to 20 %, calibrated
strand gauge 10 %, note 6 %, elongation 20 %.
"""

import math

from tuyere.core.basis.uncertainty import TOOLS, UFloat, exact, uncertain, wrapped
from tuyere.core.mechanics.tension import statics
from tuyere.core.mechanics.tension.beam import Ends, SlackError, tension_sounding, tension_under

_SQUARE, _SETTLED = 0.015, 0.05  # not quite at mid-span or square; not settled in its groove, hysteresis
_TABLED = 0.2  # a belt's rigidity as tables have it
_BENDING = 0.4  # a belt's bending stiffness as tables have it
_UNCALIBRATED = 0.25  # a strand gauge on a belt whose stiffness over the posts is not known
_PIVOT = 0.05  # friction of a lever's or base's pivot
_MASS = 0.05  # mass by the table, makes differ
_MARKS_M = 0.0002  # two marks read with a rule: a judgement


def usual(value: float, what: str) -> UFloat:
    """A bare number with the doubt of the tool that it is usually read with.

    `what`: force, deflection, span, offset, base, frequency, mass, sag, chord, arm, angle, weight, mark, rigidity or bending.

    >>> usual(50.0, "force").n
    50.0
    """
    tape, scale = TOOLS["tape"], TOOLS["spring gauge"]
    doubt = {
        "force": math.hypot(scale.absolute_si, scale.relative * value),
        "deflection": 0.0005,
        "span": math.hypot(tape.absolute_si, tape.relative * value),
        "offset": 0.0001,
        "base": 0.01 * value,
        "frequency": 0.01 * value,
        "mass": _MASS * value,
        "sag": math.hypot(0.002, 0.02 * value),
        "chord": math.hypot(tape.absolute_si, tape.relative * value),
        "arm": math.hypot(0.002, 0.01 * value),
        "angle": math.radians(2),
        "weight": 0.03 * value,
        "mark": _MARKS_M,
        "rigidity": _TABLED * value,
        "bending": _BENDING * value,
    }[what]
    return uncertain(value, doubt, what)


def by_gauge(
    force: UFloat,
    deflection: UFloat,
    span: UFloat,
    rigidity: UFloat | None = None,
    belt_length_m: float | None = None,
    held: bool = False,
    bending: UFloat | None = None,
) -> UFloat:
    """Strand tension before the push, from a spring gauge at mid-span.

    Bending taken off by the beam's form, and what the push itself stretched.

    The push makes the strand 2q²/L longer: shared by the whole belt (`belt_length_m`), or by the span alone where it is `held` at both
    ends. Raises SlackError.
    """

    def before(f: float, q: float, span_m: float, ea: float, ei: float) -> float:
        stretched = span_m if held or belt_length_m is None else belt_length_m
        return tension_under(f, span_m, q, ei) - ea * 2 * q * q / (span_m * stretched)

    seated, square = uncertain(1.0, _SETTLED, "belt not settled in the groove"), uncertain(1.0, _SQUARE, "not quite at mid-span or square")
    found = wrapped(before)(force * seated * square, deflection, span, rigidity or exact(0.0), bending or exact(0.0))
    if found.n <= 0:
        raise SlackError("The stretch of the push alone takes this force: the strand hangs slack, or the deflection is misread.")
    return found


def by_strand_gauge(force: UFloat, offset: UFloat, half_base: UFloat, bending: UFloat | None = None) -> UFloat:
    """From a gauge that bends the strand over its own posts: the same form over the base 2a. Raises SlackError."""
    settled = uncertain(1.0, _SETTLED if bending is not None else _UNCALIBRATED, "belt's stiffness over the posts")
    return wrapped(lambda f, h, a, ei: tension_under(f, 2 * a, h, ei))(force * settled, offset, half_base, bending or exact(0.0))


def by_note(frequency: UFloat, span: UFloat, mass: UFloat, bending: UFloat | None = None, ends: Ends = "pinned") -> UFloat:
    """From a plucked note, the lowest partial. Raises SlackError.

    >>> found = by_note(usual(60.0, "frequency"), usual(0.5, "span"), usual(0.2, "mass"))
    >>> round(found.n)
    720
    """
    return wrapped(lambda f, length, m, ei: tension_sounding(f, length, m, ei, ends))(frequency, span, mass, bending or exact(0.0))


def by_chain_sag(sag: UFloat, chord: UFloat, slope_rad: float, mass: UFloat) -> UFloat:
    """Of a chain's strand, where it runs along its chord. Raises SteepError."""
    return wrapped(lambda s, d, m: statics.chain_tension(s, d, slope_rad, m))(sag, chord, mass)


def by_idler_lever(pull: UFloat, handle: UFloat, arm: UFloat, wrap: UFloat, off_square: UFloat, belts: int = 1) -> UFloat:
    """Of one strand at rest, from the pull square to an idler's handle."""
    free = uncertain(1.0, _PIVOT, "friction of the pivot")
    return wrapped(lambda p, h, a, w, o: statics.by_idler_lever(p, h, a, w, o, belts))(pull * free, handle, arm, wrap, off_square)


def by_weighted_base(weight: UFloat, weight_arm: UFloat, strand_arms: tuple[UFloat, UFloat], belts: int = 1) -> UFloat:
    """Of one strand at rest, under a pivoted or weighted base."""
    free = uncertain(1.0, _PIVOT, "friction of the pivot")
    return wrapped(lambda w, x, a, b: statics.by_weighted_base(w, x, (a, b), belts))(weight * free, weight_arm, *strand_arms)


def by_elongation(mark_slack: UFloat, mark_stretched: UFloat, rigidity: UFloat) -> UFloat:
    """From two marks, slack and fitted. Raises SlackError where they came no farther apart."""
    if mark_stretched.n <= mark_slack.n:
        raise SlackError("The marks stand no farther apart than on the slack belt: it is not stretched, or they are swapped.")
    return wrapped(statics.by_elongation)(mark_slack, mark_stretched, rigidity)
