"""The ways to measure a strand's tension.

For which kinds, what to set on the tool, how to go about it, and what the tool shows at a tension.

Steps are common practice, no source, unless said.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from tuyere.core.basis.figure import both
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.uncertainty import UFloat, exact, uncertain
from tuyere.core.drive.stage import TightStage
from tuyere.core.mechanics.tension import deflection, measured, statics
from tuyere.core.mechanics.tension.beam import SlackError, frequency_of, push_for

LEVER = ("lever idler, slack side", "spring idler, slack side", "weight idler, slack side", "idler, tight side")


class MethodAsk(NamedTuple):
    """Something more to type for a method.

    Its key, its field, how it is called, whether it cannot be done without, whether it stands with the stage.
    """

    key: str
    field: str
    label: str
    needed: bool = True
    kept: bool = False


@dataclass(frozen=True)
class TensionMethod:
    """`reads`: the field of what the tool shows, and `each`: one for every belt, or one for all.

    `seats`: what it can be used on; `held`: only where that holds the tension.
    """

    key: str
    label: str
    tool: str
    reads: str
    value: str
    seats: tuple[str, ...]
    each: bool = True
    asks: tuple[MethodAsk, ...] = ()
    held: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()


BELTS = ("groove", "teeth", "rim")
METHODS: tuple[TensionMethod, ...] = (
    TensionMethod(
        "gauge",
        "Spring deflection gauge",
        "spring gauge",
        "force",
        "Force under the small ring",
        BELTS,
        asks=(MethodAsk("deflection", "deflection", "Pushed down by", False),),
        tools=("spring gauge", "spring scale"),
    ),
    TensionMethod(
        "scale",
        "Push-pull scale and rule",
        "spring scale",
        "force",
        "Force on the scale",
        BELTS,
        asks=(MethodAsk("deflection", "deflection", "Pushed down by", False),),
        tools=("spring scale", "spring gauge"),
    ),
    TensionMethod(
        "note",
        "Plucked note",
        "tension meter",
        "frequency",
        "Note",
        BELTS,
        asks=(MethodAsk("note_tension", "belt_tension", "Or what the meter says in force", False),),
    ),
    TensionMethod("strand", "Press-on strand gauge", "strand gauge", "belt_tension", "Its arm shows", ("groove",)),
    TensionMethod(
        "clip",
        "Three-post clip-on gauge",
        "clip-on gauge",
        "force",
        "Force on its spring",
        ("groove", "teeth"),
        asks=(
            MethodAsk("clip_offset", "clip_offset", "Middle post pushes the belt in by"),
            MethodAsk("clip_base", "clip_base", "From an outer post to the middle one"),
        ),
    ),
    TensionMethod(
        "marks",
        "Two marks on the belt",
        "rule",
        "mark",
        "Marks apart, fitted",
        ("groove", "rim"),
        each=False,
        asks=(MethodAsk("mark_slack", "mark", "Marks apart on the slack belt"),),
    ),
    TensionMethod(
        "sag",
        "Sag of the slack strand",
        "rule",
        "sag",
        "Sag at the middle",
        ("sprocket",),
        each=False,
        asks=(MethodAsk("sag_other", "sag", "Sag of the other strand, if it hangs too", False),),
    ),
    TensionMethod("moves", "How far it moves up and down", "rule", "sag", "Moves in all", ("sprocket",), each=False),
    TensionMethod(
        "lever",
        "Pull at the idler’s handle",
        "spring scale",
        "force",
        "Pull, square to the handle",
        BELTS,
        each=False,
        held=LEVER,
        asks=(
            MethodAsk("handle", "lever_arm", "Pivot to where you pull", kept=True),
            MethodAsk("arm", "lever_arm", "Pivot to the idler’s middle", kept=True),
            MethodAsk("wrap", "wrap_angle", "Belt’s wrap on the idler", kept=True),
            MethodAsk("off_square", "lean_angle", "Belt’s pull off square to the arm", False, True),
        ),
    ),
    TensionMethod(
        "base",
        "Weight of the pivoted base",
        "scale",
        "weight",
        "Weight of motor and base",
        BELTS,
        each=False,
        held=("pivoted base",),
        asks=(
            MethodAsk("weight_arm", "lever_arm", "Pivot to the common centre of weight, level", kept=True),
            MethodAsk("strand_arm_1", "lever_arm", "Pivot square to the tight strand", kept=True),
            MethodAsk("strand_arm_2", "lever_arm", "Pivot square to the slack strand", kept=True),
        ),
    ),
)
BY_KEY = {m.key: m for m in METHODS}


def methods_for(stage: TightStage) -> tuple[TensionMethod, ...]:
    """What can be used on a stage, the usual one first; a span that a manual gives is plucked."""
    fit = [m for m in METHODS if stage.loop.seat in m.seats and (not m.held or stage.held_by in m.held)]
    return tuple(sorted(fit, key=lambda m: m.key != "note")) if stage.loop.stated else tuple(fit)


@dataclass(frozen=True)
class Setting:
    """What is known when a tool is laid on.

    The span and the deflection (m; `by_manual`: the manual's), and what was typed beside the reading (SI).
    """

    stage: TightStage
    span: UFloat
    pushed: UFloat | None = None
    more: dict[str, UFloat] = field(default_factory=dict)
    by_manual: bool = False

    @property
    def deflection_m(self) -> float:
        """How far it is pushed: as typed, or 1/64 of the span."""
        return self.pushed.n if self.pushed is not None else deflection(self.span.n)

    @property
    def pushes(self) -> str:
        """What a tool pushes at once."""
        return "the whole band, a bar across it" if self.stage.loop.ribs > 1 else f"one {self.stage.strand.one}"

    @property
    def held(self) -> bool:
        """Whether other strands hold the wheels while one is pushed."""
        return self.stage.count > 1

    def need(self, *keys: str) -> bool:
        """Whether all of these were measured beside it."""
        return all(k in self.more for k in keys)


def _rigid(at: Setting) -> UFloat | None:
    ea = at.stage.strand.rigidity_n
    return measured.usual(ea, "rigidity") if ea else None


def _bending(at: Setting) -> UFloat | None:
    ei = at.stage.strand.bending_n_m2
    return measured.usual(ei, "bending") if ei else None


def _by_push(at: Setting, shown: UFloat) -> UFloat:
    q = at.pushed if at.pushed is not None else uncertain(at.deflection_m, 0.0005, "deflection reading")
    return measured.by_gauge(shown / at.stage.loop.ribs, q, at.span, _rigid(at), at.stage.length_m, at.held, _bending(at))


def _push_at(at: Setting, tension_n: float) -> float:
    q, span, strand = at.deflection_m, at.span.n, at.stage.strand
    stretched = (strand.rigidity_n or 0.0) * 2 * q * q / (span * (span if at.held else at.stage.length_m))
    return push_for(q, span, tension_n + stretched, strand.bending_n_m2 or 0.0) * at.stage.loop.ribs


def _by_note(at: Setting, shown: UFloat) -> UFloat:
    return measured.by_note(shown, at.span, measured.usual(at.stage.strand.mass_kg_per_m, "mass"), _bending(at))


_STRAND_SCALE = (
    0.15  # of a scale made for the section, one standard deviation: common practice, no source (10 % calibrated, 25 % and more not)
)


def _by_strand(at: Setting, shown: UFloat) -> UFloat:
    return shown * uncertain(1.0, _STRAND_SCALE, "the gauge's scale on this belt")


def _by_clip(at: Setting, shown: UFloat) -> UFloat:
    return measured.by_strand_gauge(shown, at.more["clip_offset"], at.more["clip_base"], _bending(at))


def _by_marks(at: Setting, shown: UFloat) -> UFloat:
    rigid = _rigid(at)
    if rigid is None:
        raise SlackError("How far this belt stretches under a pull is not known here: hold the stretch against its maker's figure.")
    return measured.by_elongation(at.more["mark_slack"], shown, rigid)


def _by_sag(at: Setting, shown: UFloat) -> UFloat:
    other = at.more.get("sag_other")
    # Slack that hangs in both strands is all in one of them once the drive is turned: lengths add up, and go with the square of the sag.
    sag = (shown * shown + other * other) ** 0.5 if other is not None else shown
    span = at.stage.spans[at.stage.longest]
    return measured.by_chain_sag(sag, at.span, span.slope_rad, measured.usual(at.stage.strand.mass_kg_per_m, "mass"))


def _by_moves(at: Setting, shown: UFloat) -> UFloat:
    return _by_sag(at, shown / (2 * math.sqrt(4 / 3)))


def _lever(at: Setting) -> tuple[UFloat, UFloat, UFloat, UFloat]:
    more = at.more
    return more["handle"], more["arm"], more["wrap"], more.get("off_square", exact(0.0))


def _by_lever(at: Setting, shown: UFloat) -> UFloat:
    return measured.by_idler_lever(shown, *_lever(at), at.stage.count)


def _by_base(at: Setting, shown: UFloat) -> UFloat:
    more = at.more
    return measured.by_weighted_base(shown, more["weight_arm"], (more["strand_arm_1"], more["strand_arm_2"]), at.stage.count)


def _sag_at(at: Setting, tension_n: float) -> float:
    slope = min(at.stage.spans[at.stage.longest].slope_rad, statics.STEEPEST_RAD)
    return statics.chain_sag(tension_n, at.span.n, slope, at.stage.strand.mass_kg_per_m)


def _clip_at(at: Setting, tension_n: float) -> float:
    return push_for(at.more["clip_offset"].n, 2 * at.more["clip_base"].n, tension_n, at.stage.strand.bending_n_m2 or 0.0)


def _base_at(at: Setting, tension_n: float) -> float:
    more = at.more
    arms = (more["strand_arm_1"].n, more["strand_arm_2"].n)
    return tension_n / statics.by_weighted_base(1.0, more["weight_arm"].n, arms, at.stage.count)


# For each method: tension from what the tool shows, and what it shows at a tension.
TENSION: dict[str, Callable[[Setting, UFloat], UFloat]] = {
    "gauge": _by_push,
    "scale": _by_push,
    "note": _by_note,
    "strand": _by_strand,
    "clip": _by_clip,
    "marks": _by_marks,
    "sag": _by_sag,
    "moves": _by_moves,
    "lever": _by_lever,
    "base": _by_base,
}
SHOWS: dict[str, Callable[[Setting, float], float]] = {
    "gauge": _push_at,
    "scale": _push_at,
    "note": lambda at, t: frequency_of(t, at.span.n, at.stage.strand.mass_kg_per_m, at.stage.strand.bending_n_m2 or 0.0),
    "strand": lambda at, t: t,
    "clip": _clip_at,
    "marks": lambda at, t: at.more["mark_slack"].n * (1 + t / (at.stage.strand.rigidity_n or math.inf)),
    "sag": _sag_at,
    "moves": lambda at, t: _sag_at(at, t) * 2 * math.sqrt(4 / 3),
    "lever": lambda at, t: t / statics.by_idler_lever(1.0, *[v.n for v in _lever(at)], belts=at.stage.count),  # type: ignore[misc]
    "base": _base_at,
}
_NEEDS_MASS = ("note", "sag", "moves")


def lacks(method: TensionMethod, at: Setting) -> str:
    """What is still wanted before the method can be reckoned, in words; empty once nothing is."""
    for ask in method.asks:
        if ask.needed and ask.key not in at.more:
            return f"{ask.label}: measure it first."
    if method.key in _NEEDS_MASS and not at.stage.strand.mass_kg_per_m:
        return "Its mass per length is wanted: say its width and kind at Survey, or weigh a length of it."
    return ""


_LEAST_PUSH = 2.0  # lbf: its marks stand half a pound apart
STEMS = (("single", 35.0), ("double", 66.0), ("triple", 99.0))  # lbf: common practice, medium


def stem_for(force_n: float) -> str:
    """Which spring gauge reaches a force with a tenth of its range to spare, in words."""
    lbf = from_si(force_n, "force", "lbf")
    if lbf < _LEAST_PUSH:
        return "Too light a push for a spring gauge to read well: pluck the note, or use a fine scale."
    for name, most in STEMS:
        if lbf <= 0.9 * most:
            return f"A {name}-stem gauge ({most:.0f} lbf, {to_si(most, 'force', 'lbf'):.0f} N) reaches it."
    return "More than a triple-stem gauge reads: use a bar and scale over the whole set, the note or the marks."


def steps(method: TensionMethod, at: Setting, aim: tuple[str, str] | None) -> tuple[str, ...]:
    """How to go about it here; `aim`: what the tool should show, from and to, in words."""
    shows = f"It should show {aim[0]} to {aim[1]}." if aim else ""
    q, span = both(at.deflection_m), both(at.span.n)
    many = at.stage.loop.count > 1
    band = at.stage.loop.ribs > 1
    each = f" Read every {'band' if band else 'belt'} of the set." if many else ""
    push = f"push {at.pushes}," if band else "push"
    turn = "Turn the drive by hand so that each belt's slack lies on the same side."
    found: dict[str, Sequence[str]] = {
        "gauge": (
            f"Set the large ring to {q} on the span scale, the small ring to zero."
            if at.pushed is None
            else f"Set the large ring to {q}, the small ring to zero.",
            f"{turn if many else 'Turn the drive round once by hand.'} Lay a straightedge over both wheels, or take the next belt as the "
            "line.",
            f"At mid-span {push} square to the belt, your eye level with the ring, until the large ring meets the line.",
            f"Read the force under the small ring. {shows}{each}",
        ),
        "scale": (
            "Lay a straightedge over both wheels along the strand, a rule beside it at mid-span.",
            f"{push.capitalize()} square to the belt, the scale between, until the rule shows {q}.",
            f"Read the scale. {shows}{each}",
        ),
        "note": (
            f"The free span is {span}: nothing may touch it. Turn the drive round once.",
            "Hold the meter close to the middle, pluck softly there. A reading twice as high is its first harmonic: pluck again.",
            f"Three readings, take the middle one. {shows}{each}",
        ),
        "strand": (
            "Lay the gauge on the belt near mid-span, its arm pressed down flat, a finger through its strap.",
            "Press square to the belt until it yields, then stop and lift it off: the arm stays where it is.",
            f"Read where the arm meets the scale for this belt. {shows}{each}",
        ),
        "clip": (
            "Clip it on at mid-span, two posts behind the belt and one before it, clear of cogs and joints.",
            f"Let the spring settle, then read its spring, or its scale for this section. {shows}{each}",
            "Take the gauge off, turn the drive once by the rim of a wheel, clip it on again and read once more.",
        ),
        "marks": (
            "With the belt slack, draw two fine lines square across its back, as far apart as the rule reaches.",
            "Fit and tighten it; turn it round a few times by hand.",
            f"Measure between the same two lines. {shows}",
        ),
        "sag": (
            "Turn one wheel by hand until the lower or slack strand hangs and the other is taut.",
            "Lay a straightedge over the teeth along the slack strand.",
            f"At mid-span measure from the straightedge to the chain. {shows}",
        ),
        "moves": (
            "Turn one wheel by hand until one strand is taut.",
            "At mid-span push the slack strand down, then lift it up, a rule beside it.",
            f"Measure how far it moved in all. {shows}",
        ),
        "lever": (
            "Unhook the spring or hold the lever clear of its stop; belt engaged, drive isolated.",
            "Hook the scale to the handle and pull square to it until the idler just lifts off the belt.",
            f"Read the pull. {shows}",
        ),
        "base": (
            "Weigh motor and base, or take both from their plates.",
            "Measure level from the pivot to their common centre of weight, and square from the pivot to each strand.",
            f"The weight that holds the tension: {aim[0]} to {aim[1]}." if aim else "Then the tension at rest stands here.",
        ),
    }
    return tuple(found[method.key])
