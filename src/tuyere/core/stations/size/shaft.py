"""What the belt's pull does to one machine's shaft and bearings.

Reactions, life against a baseline or in hours, strain, bushings, over-tension.

SI inside; what is not known is asked for or not judged. Sources: statics; ISO 281; Shigley; Machinery's Handbook (from memory).
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import Figure, Line, both, figure, shown
from tuyere.core.basis.limit import limit as trade_limit
from tuyere.core.basis.origin import Confidence, Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.uncertainty import exact
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.drive.layout.pair import Pair
from tuyere.core.kinds.motor import MotorLimit, NotJudged, limit
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.mechanics import loads

FIELDS = {
    "overhang": "overhang",
    "bearing_span": "bearing_span",
    "shaft": "shaft_diameter",
    "bearing_rating": "bearing_rating",
    "bushing_length": "bushing_length",
    "limit": "shaft_pull",
}
BEARINGS = {"ball": loads.BALL, "roller": loads.ROLLER, "bushing": None}
OVER = (0.9, 1.2, 1.5, 2.0)
_SLOPE = {"ball": (0.001, 0.003), "roller": (0.0008, 0.0012)}  # rad: Shigley, medium
_BENDING = 55e6  # Pa: 8000 psi in the old code's shafts of commercial steel (ASME, medium); a keyway counts three quarters
PSI = to_si(1.0, "stress", "psi")
_SHAFT = "statics; Shigley; ISO 281 (from memory)"


@dataclass(frozen=True)
class ShaftReading:
    """Figures with their workings by key, verdicts, and how life changes with tension: (times as tight, life ratio)."""

    figures: dict[str, Figure]
    verdicts: tuple[Verdict, ...]
    life: tuple[tuple[float, float], ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_shaft(quantities: Mapping[str, Typed], words: Mapping[str, str], pair: Pair) -> ShaftReading:
    """Judge the shaft that `words["side"]` names ("driver" or "driven"), as far as what was typed allows.

    Of a stage of a train only the driver's own shaft can be a motor's.
    """
    spec, page = pair.spec, pair.page
    if pair.shafts and pair.shafts[0].over:
        words = {**words, "motor": ""}
    reader = FieldReader(quantities, words)
    v = {key: reader.value(key, field) for key, field in FIELDS.items()}
    side = "driven" if words.get("side") == "driven" else "driver"
    bearing = words.get("bearing", "ball") if words.get("bearing", "ball") in BEARINGS else "ball"
    if not page.has("shaft_pull", f"{side}_speed"):
        missing = Verdict(
            "shaft",
            Tone.OPEN,
            "The pull is not known yet",
            "It needs the drive's power, speed, wheels, centres and duty: fill them in at Survey.",
        )
        return ShaftReading({}, (missing,), (), reader.notes, tuple(reader.problems))
    out = Page()
    # At work: standing, the centrifugal part pulls too, but then nothing turns in the bearings.
    pull, line = page.values["shaft_pull"].n, page.figures["shaft_pull"].line("F")
    speed = page.values[f"{side}_speed"].n
    _shared(pair, side, out)
    _motor(spec, page, side, words, out)
    _limit(v["limit"], words, side, pull, out)
    _least_wheel(v["limit"], spec, page, side, out)
    if v["shaft"] is not None and spec.driver_power:
        moment = pull * v["overhang"] if v["overhang"] is not None else None
        _torsion(
            spec.driver_power.value,
            page.figures["driver_power"].line("P"),
            page.figures[f"{side}_speed"].line("n"),
            speed,
            v["shaft"],
            moment,
            spec.driven_class,
            words.get("keyway") != "no",
            out,
        )
    life: tuple[tuple[float, float], ...] = ()
    exponent = BEARINGS[bearing]
    if v["overhang"] is not None and v["bearing_span"] is not None:
        near, far = loads.reactions(pull, v["overhang"], v["bearing_span"])
        arms = [_length("a", "overhang", v["overhang"]), _length("b", "between the bearings", v["bearing_span"])]
        _put(out, "near_bearing", "near bearing", "R_1", "force", near, [line, *arms], "R_1 = F (a + b)/b")
        _put(
            out,
            "far_bearing",
            "far bearing",
            "R_2",
            "force",
            far,
            [line, *arms],
            "R_2 = -F a/b",
            "Negative: it holds down what the near one lifts.",
        )
        _put(out, "overhang_moment", "bending moment", "M", "torque", pull * v["overhang"], [line, arms[0]], "M = F a")
        if bearing == "bushing":
            _bushing(near, v, speed, out)
        elif v["bearing_rating"] is not None and exponent:
            hours = loads.life_hours(v["bearing_rating"], near, speed, exponent)
            c = Line("C", "bearing's dynamic rating", *shown(v["bearing_rating"], "force"), Origin.NAMEPLATE, Origin.NAMEPLATE)
            _put(
                out,
                "bearing_life",
                "near bearing’s life",
                "L_10h",
                "duration",
                hours * 3600,
                [c, *_of(out, "near_bearing"), page.figures[f"{side}_speed"].line("n")],
                f"L_10h = 10^6/(60 n) (C/P)^{'3' if bearing == 'ball' else '10/3'}",
                "The belt's pull alone: rotor, wheel and axial loads shorten it.",
            )
        if v["shaft"] is not None:
            _strain(pull, spec, page, side, v["shaft"], v["overhang"], v["bearing_span"], bearing, out)
    if exponent:
        life = tuple((k, loads.life_ratio(1.0, k, exponent)) for k in OVER)
        out.say(
            "life",
            Tone.OPEN,
            f"Half as tight again: {loads.life_ratio(1.0, 1.5, exponent):.0%} of the bearing's life",
            "Where the belt's pull is the bearing's whole load; less where it is only a part. Tension is dear: set it, do not guess it.",
        )
    return ShaftReading(dict(out.figures), tuple(out.verdicts), life, reader.notes, tuple(reader.problems))


def _put(
    out: Page,
    key: str,
    label: str,
    symbol: str,
    kind: str,
    value: float,
    lines: list[Line],
    formula: str,
    note: str = "",
    decimals: tuple[int, int] | None = None,
) -> None:
    out.put(
        figure(key, label, symbol, kind, exact(value), lines, formula, _SHAFT, Confidence.MEDIUM, note=note, decimals=decimals),
        exact(value),
    )


# K_b of the old code, bending of a turning shaft, for steady loads; K_t is the class of machine's jolt (tables/shock_factors.csv).
_BENDING_FACTOR = 1.5


def _torsion(
    power_w: float,
    power: Line,
    turns: Line,
    speed: float,
    shaft: float,
    moment: float | None,
    driven_class: str | None,
    keyed: bool,
    out: Page,
) -> None:
    """Shear in the shaft against the old transmission-shafting code; with the bending moment where it is known.

    τ = 16/(π d³) √((K_b M)² + (K_t Q)²); 8000 psi in commercial steel, 6000 with a keyway: ASME code of old, Shigley (from memory, medium).
    """
    torque = power_w / speed
    jolt = next((float(r["k"]) for r in rows("shock_factors") if r["driven_class"] == driven_class), 1.0)
    shear = loads.shaft_strain(0.0, torque, shaft, 0.0, 1.0).shear_pa
    _put(
        out,
        "shaft_torsion",
        "shear by torque",
        "τ",
        "stress",
        shear,
        [power, turns, _length("d", "shaft diameter", shaft)],
        "τ = 16 Q/(π d³), Q = P/ω",
    )
    code = 16 / (math.pi * shaft**3) * math.hypot(_BENDING_FACTOR * (moment or 0.0), jolt * torque)
    most = trade_limit("shaft shear with keyway" if keyed else "shaft shear plain")
    told = f"{code / PSI:,.0f} psi ({code / 1e6:.0f} MPa) by the code, with {jolt:g} times the torque for the jolts of such a machine{f' and {_BENDING_FACTOR:g} times the bending' if moment else ', bending not counted: give the overhang'}; {float(most.printed.split()[0]):,.0f} psi is allowed ({most.source})."
    if code > most.value:
        needs = shaft * (code / most.value) ** (1 / 3)
        out.say(
            "torsion",
            Tone.WATCH,
            f"The shaft is too thin for this torque: {code / most.value:.0%} of the old shafting code",
            f"{told} It wants {both(needs)}.",
        )
    else:
        out.say(
            "torsion",
            Tone.GOOD if moment else Tone.OPEN,
            f"The torque takes {code / most.value:.0%} of what the old shafting code allows",
            told,
        )


def _shared(pair: Pair, side: str, out: Page) -> None:
    """A jackshaft carries more than this stage."""
    shaft = pair.shafts[side == "driven"] if pair.shafts else None
    if shaft is None or len(shaft.wheels) < 2:
        return
    whole = f" Added as arrows they pull with {both(shaft.pull_n, 'force')} at work." if shaft.pull_n else ""
    out.say(
        "shaft",
        Tone.OPEN,
        f"More than this belt pulls on this shaft: {' and '.join(shaft.wheels)}",
        f"What stands below is for this stage's pull alone.{whole} Judge the bearings by both.",
    )


def _length(symbol: str, label: str, value: float) -> Line:
    return Line(symbol, label, *shown(value, "length", decimals=(2, 1)), Origin.MEASURED, Origin.MEASURED)


def _of(out: Page, key: str) -> list[Line]:
    return [out.figures[key].line("P")]


def _motor(spec: DriveSpec, page: Page, side: str, words: Mapping[str, str], out: Page) -> None:
    if side != "driver" or words.get("motor") != "yes" or not (spec.driver_power and spec.driver_speed):
        return
    found = limit(spec.driver_power.value, spec.driver_speed.value, words.get("frame") or None)
    if isinstance(found, NotJudged):
        headline = "Stop: this shaft is not for belts" if found.stop else "The motor's shaft is not judged"
        out.say("motor", Tone.STOP if found.stop else Tone.OPEN, headline, found.says)
        return
    narrow = spec.fitted.loop.narrow_series if spec.fitted and spec.fitted.loop else None
    if spec.fitted and narrow is not None:
        has, wants, what = (
            (page.values["driver_outside"].n, found.narrow_m, "across the outside")
            if narrow
            else (page.values["driver_datum"].n, found.classical_m, "of datum diameter")
        )
        _sheave(has, wants, what, found, out)
        width = spec.fitted.face_m
        most = found.narrow_width_m if narrow else found.classical_width_m
        if width and most and width > most:
            out.say(
                "motor",
                Tone.WATCH,
                f"The sheave is too wide for {found.named}",
                f"{both(width)} over the belts; it stands {both(most)}: the outer belts pull too far out.",
            )
        return
    pull = page.values["shaft_pull"].n
    tone, headline = (
        (Tone.GOOD, f"The pull is within what {found.named} is meant for")
        if pull <= found.pull_n
        else (Tone.WATCH, f"It pulls harder than {found.named} is meant for")
    )
    out.say(
        "motor",
        tone,
        headline,
        f"{both(pull, 'force')}; V-belts on the smallest sheave it may carry would pull with {both(found.pull_n, 'force')} "
        f"({found.source}).",
    )


def _sheave(has: float, wants: float, what: str, found: MotorLimit, out: Page) -> None:
    said = f"{both(has, decimals=(2, 1))} {what}; it wants {both(wants, decimals=(2, 1))} at least ({found.source}, {found.confidence})."
    if has >= wants * (1 - 1e-3):
        out.say("motor", Tone.GOOD, f"The sheave is large enough for {found.named}", said)
    else:
        out.say(
            "motor",
            Tone.WATCH,
            f"The sheave is too small for {found.named}",
            said + " A smaller one pulls harder for the same power, and its bearing and shaft pay.",
        )


def _limit(most: float | None, words: Mapping[str, str], side: str, pull: float, out: Page) -> None:
    if most is not None:
        tone = Tone.GOOD if pull <= most else Tone.WATCH
        out.say(
            "limit",
            tone,
            f"The pull is {pull / most:.0%} of what the {side} may be pulled with",
            f"{both(pull, 'force')} of {both(most, 'force')}.",
        )
    elif words.get("crank") == "yes":
        out.say(
            "limit",
            Tone.OPEN,
            "Not judged: the crank's limit is not known",
            "A cantilevered crankshaft stands only so much side pull: ask the engine's maker for it, or fit an outboard bearing.",
        )


def _least_wheel(most: float | None, spec: DriveSpec, page: Page, side: str, out: Page) -> None:
    """The smallest wheel that a known limit allows, by the usual factor.

    What a sheave table says of frames that have one, for those that have none.
    """
    if most is None or not spec.driver_power or not spec.fitted or not spec.fitted.loop:
        return
    family, factor = spec.fitted.loop.overhung
    least = 2 * factor * spec.driver_power.value / (page.values[f"{side}_speed"].n * most)
    k = Line("K", f"overhung-load factor, {family}", f"{factor:g}", f"{factor:g}", Origin.STANDARD, Origin.STANDARD)
    limit_line = Line("F", f"limit of the {side}", *shown(most, "force"), Origin.NAMEPLATE, Origin.NAMEPLATE)
    _put(
        out,
        "least_wheel",
        "smallest wheel by that limit",
        "d",
        "length",
        least,
        [k, limit_line, *page.lines("driver_power"), page.figures[f"{side}_speed"].line("n")],
        "d = 2 K P/(ω F)",
        "Over the belt's line, at half the shaft's length; the pull above goes by the tension itself.",
        decimals=(2, 0),
    )


def _bushing(near: float, v: Mapping[str, float | None], speed: float, out: Page) -> None:
    bore, length = v["shaft"], v["bushing_length"]
    if bore is None or length is None:
        out.say("bushing", Tone.OPEN, "Measure the shaft and the bushing's length", "The pressure goes by both.")
        return
    duty = loads.bushing_duty(near, bore, length, speed)
    psi, fpm = duty.pressure_pa / 6894.757, from_si(duty.speed_m_per_s, "velocity", "ft/min")
    worst = duty.shares[duty.governs]
    tone = Tone.GOOD if worst <= 0.5 else Tone.OPEN if worst <= 1 else Tone.WATCH
    said = f"{psi:.0f} psi on its shadow at {fpm:.0f} ft/min: {psi * fpm:,.0f} psi ft/min, of 50 000 for oiled porous bronze (2000 psi, 1200 ft/min). Under half, it runs years between oilings (common practice)."
    out.say("bushing", tone, f"The bushing works at {worst:.0%} of its limit: {duty.governs} governs", said)


def _strain(
    pull: float, spec: DriveSpec, page: Page, side: str, shaft: float, overhang: float, span: float, bearing: str, out: Page
) -> None:
    torque = spec.driver_power.value / page.values[f"{side}_speed"].n if spec.driver_power else 0.0
    found = loads.shaft_strain(pull, torque, shaft, overhang, span)
    lines = [_length("d", "shaft diameter", shaft), _length("a", "overhang", overhang), _length("b", "between the bearings", span)]
    _put(
        out,
        "shaft_bending",
        "bending stress",
        "σ",
        "stress",
        found.bending_pa,
        lines,
        "σ = 32 F a/(π d³)",
        "A fillet or keyway multiplies it by 1.5 to 2 (Shigley).",
    )
    _put(out, "shaft_deflection", "shaft end gives", "δ", "length", found.deflection_m, lines, "δ = F a² (a + b)/(3 E I)", decimals=(4, 3))
    lo, hi = _SLOPE.get(bearing, (0.001, 0.003))
    slope = found.slope_bearing_rad
    tone = Tone.GOOD if slope <= lo else Tone.OPEN if slope <= hi else Tone.WATCH
    out.say(
        "shaft",
        tone,
        f"The shaft leans {slope * 1000:.2f} thousandths in the near bearing",
        f"A {bearing} bearing stands about {lo * 1000:g} to {hi * 1000:g} (Shigley, medium).",
    )
    if found.bending_pa > _BENDING * 0.75:
        out.say(
            "shaft",
            Tone.WATCH,
            "The shaft is bent hard",
            f"{found.bending_pa / 1e6:.0f} MPa turning over at every turn, against {_BENDING * 0.75 / 1e6:.0f} MPa of the old code with a "
            "keyway: move the wheel to the bearing, or fit an outboard one.",
        )
