"""Judging the way a belt runs: faces and turning senses, where the take-up sits, how tightly it bends, crossed and quarter-turn rules."""

from collections.abc import Sequence

from tuyere.core.basis.figure import both
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.mechanics.belt_path import BeltPath, Clash
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, PathWheel
from tuyere.core.mechanics.quarter_turn import QuarterTurn

_BACK_IDLER = 1.3  # a flat idler on the back, times the smallest sheave: common practice (1.3 to 1.5), medium confidence
_FLAT_CENTRES = 4.0  # quarter turn, centres over the larger diameter: handbooks, from memory, low confidence
_V_CENTRES = 5.5  # quarter turn, centres over larger diameter and belt width together: from memory, low confidence
_CROSSED_CENTRES = 20.0  # crossed, centres over belt width: handbooks, from memory, medium confidence


# What a wheel at a loop's back, or a smooth one at its inside, is told by what holds the loop.
_SEAT = {
    "groove": (
        "grooved",
        "The belt's narrow edge rides on it and wears",
        "A plain V-belt's back holds little: a wheel that is driven there wants a double-V (hexagonal) belt in a groove.",
    ),
    "teeth": (
        "toothed",
        "The teeth's tips ride on it and wear, unless it is large",
        "The back of a toothed belt holds little: a wheel that is driven there wants a belt with teeth on both sides.",
    ),
}


def judge_routing(path: BeltPath, belt: BeltOnWheels, hits: Sequence[Clash]) -> list[Verdict]:
    """Crossings, wheels turning the wrong way, faces on the wrong side of the belt."""
    found = [Verdict("path", Tone.STOP, f"The {belt.runs} is not routed so", c.sentence) for c in hits]
    wheels, both_faces = belt.wheels, belt.both_faces
    made, rides, holds = _SEAT.get(belt.seat, ("", "", ""))
    for w, p in zip(wheels, path.pulleys, strict=True):
        if w.turns_wanted and w.turns_wanted != p.turns:
            found.append(
                Verdict(
                    "path",
                    Tone.STOP,
                    f"{w.name} would turn the wrong way",
                    f"The {belt.runs} lies on its wrong side: follow the routing on the machine's own plate.",
                )
            )
        if not made:
            continue
        if w.contact == "inside" and w.face == "flat" and w.role == "idler":
            found.append(
                Verdict(
                    "path",
                    Tone.WATCH,
                    f"{w.name}: a flat idler on the {'groove' if made == 'grooved' else 'tooth'} side",
                    f"{rides}: it wants a {made} idler there, or its place on the back.",
                )
            )
        if w.contact == "back" and w.role == "driven" and not both_faces:
            found.append(
                Verdict(
                    "path",
                    Tone.WATCH,
                    f"{w.name} is driven from the belt's back",
                    holds,
                )
            )
        if w.contact == "back" and w.face == "grooved" and not both_faces:
            found.append(
                Verdict(
                    "path",
                    Tone.STOP,
                    f"{w.name}: a {made} idler on the belt's back",
                    f"The back does not fit a {'groove' if made == 'grooved' else 'toothed wheel'}: it wants a flat idler without a crown "
                    "there.",
                )
            )
    return found


def judge_take_up(wheels: Sequence[PathWheel]) -> list[Verdict]:
    """Whether an idler that takes up sits on the slack side, near the driver."""
    loaded = [i for i, w in enumerate(wheels) if w.role == "driven"]
    found = []
    for i, w in enumerate(wheels):
        if not w.take_up or w.role != "idler" or not loaded:
            continue
        if i < loaded[0]:
            found.append(
                Verdict(
                    "take-up",
                    Tone.GOOD,
                    f"{w.name} sits on the slack side",
                    "Between the driver's leaving side and the first load: near the driver is best.",
                )
            )
        elif i > loaded[-1]:
            found.append(
                Verdict(
                    "take-up",
                    Tone.STOP,
                    f"{w.name} sits on the tight side",
                    "Under load the belt pushes it away and goes slack behind the driver. It belongs on the run that leaves the driver.",
                )
            )
        else:
            found.append(
                Verdict(
                    "take-up",
                    Tone.WATCH,
                    f"{w.name} sits between the loads",
                    "It sees part of the pull; it belongs on the run that leaves the driver.",
                )
            )
    if loaded and not any(w.take_up for w in wheels):
        found.append(
            Verdict(
                "take-up",
                Tone.OPEN,
                "Say which wheel takes up the slack",
                f"A take-up belongs on the run from {wheels[0].name} to {wheels[1].name}: it leaves the driver and is the slackest.",
            )
        )
    return found


def judge_bends(belt: BeltOnWheels) -> list[Verdict]:
    """Wheels that bend the belt more tightly than its section or its back likes."""
    found = []
    small = [w for w in belt.wheels if 2 * w.line_radius_m < belt.least_line_diameter_m - 1e-9 and w.contact == "inside"]
    if small:
        found.append(
            Verdict(
                "bend",
                Tone.WATCH,
                f"{_names(small)}: small for this {'section' if belt.seat == 'groove' else belt.runs}",
                f"The belt wants {both(belt.least_line_diameter_m)} at least on its line; bent tighter it cracks and slips early.",
                standing=True,
            )
        )
    least = _least_on_back_m(belt)
    if tight := tight_on_back(belt):
        found.append(
            Verdict(
                "bend",
                Tone.WATCH,
                f"{_names(tight)}: small for a wheel on the belt's back",
                f"Each reverse bend wants {both(least)} (1.3 times the smallest sheave: common practice), and a belt made to bend both "
                "ways.",
                standing=True,
            )
        )
    return found


def _least_on_back_m(belt: BeltOnWheels) -> float:
    return _BACK_IDLER * min((2 * w.rim_radius_m for w in belt.wheels if w.role != "idler"), default=0.0)


def tight_on_back(belt: BeltOnWheels) -> list[PathWheel]:
    """Wheels that bend a belt backward more tightly than it is made for; a chain bends both ways."""
    least = _least_on_back_m(belt)
    return [w for w in belt.wheels if belt.seat != "sprocket" and w.contact == "back" and 2 * w.rim_radius_m < least - 1e-9]


def judge_crossed(belt: BeltOnWheels, centre_m: float) -> list[Verdict]:
    """What a crossed belt needs."""
    why = "The two runs rub where they cross, so it is for narrow leather or rubber belts at moderate speed, with no hinged plates or hooks to catch."
    short = belt.top_width_m and centre_m < _CROSSED_CENTRES * belt.top_width_m
    if short:
        why += f" The centres want {both(_CROSSED_CENTRES * belt.top_width_m)} at least (20 belt widths: handbooks, from memory)."
    grooved = _grooved(belt)
    if grooved:
        why += " A V-belt does not run crossed: its edges come out of the grooves."
    return [Verdict("path", Tone.STOP if grooved else Tone.WATCH, "The belt is crossed: the driven wheel turns the other way", why)]


def judge_quarter(belt: BeltOnWheels, turn: QuarterTurn, centre_m: float) -> list[Verdict]:
    """The offset rule of a quarter turn for these wheels, and the centres it wants."""
    first, second = belt.wheels
    found = [
        Verdict(
            "path",
            Tone.OPEN,
            f"Set {second.name} off {first.name}'s shaft by {both(turn.driven_offset_m)}",
            f"Its middle then lies where the belt leaves {first.name}; and {first.name}'s middle off {second.name}'s shaft by "
            f"{both(turn.driver_offset_m)}, "
            f"on the side where the belt leaves {second.name}. It runs this way round only: turned backwards the belt comes off.",
        )
    ]
    grooved = _grooved(belt)
    largest = 2 * max(w.line_radius_m for w in belt.wheels)
    wanted = _V_CENTRES * (largest + belt.top_width_m) if grooved else _FLAT_CENTRES * largest
    rule = "5 1/2 times the larger wheel and the belt's width" if grooved else "4 times the larger wheel"
    if centre_m < wanted:
        found.append(
            Verdict(
                "path",
                Tone.WATCH,
                "The shafts are near each other for a quarter turn",
                f"{both(centre_m)}; it wants {both(wanted)} ({rule}: from memory, low confidence). Nearer, the belt climbs out where it "
                "leaves.",
            )
        )
    if grooved:
        found.append(
            Verdict(
                "path",
                Tone.WATCH,
                "A V-belt on a quarter turn wants deep grooves",
                "The belt leaves at an angle to the groove: deep-groove sheaves hold it (common practice, no source).",
            )
        )
    return found


def judge_length(belt: BeltOnWheels, path_m: float) -> list[Verdict]:
    """Whether the belt that is on agrees with the path round the wheels as they were measured."""
    if belt.length_m is None:
        return []
    over = belt.length_m - path_m
    if abs(over) <= max(0.004, 0.004 * path_m):
        return [Verdict("length", Tone.GOOD, f"The {belt.runs}'s own length agrees with the path", f"Within {both(abs(over))}.")]
    more = "longer" if over > 0 else "shorter"
    return [
        Verdict(
            "length",
            Tone.WATCH,
            f"The {belt.runs} is {both(abs(over))} {more} than the path",
            f"Either the take-up stands elsewhere than measured, or a measurement or the {belt.runs}'s name is wrong.",
        )
    ]


def _grooved(belt: BeltOnWheels) -> bool:
    return belt.seat == "groove" and any(w.face == "grooved" for w in belt.wheels)


def _names(wheels: Sequence[PathWheel]) -> str:
    names = [w.name for w in wheels]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
