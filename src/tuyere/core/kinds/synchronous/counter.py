"""What to ask for at the counter: a toothed belt."""

from tuyere.core.basis.figure import both, fine
from tuyere.core.kinds import synchronous
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.teeth import DriveReading

_NEAR_WIDTH = 0.06  # of the width: a tape on a worn edge


def slip_of(named: synchronous.ToothedBelt | None, driven: DriveReading, width_m: float | None, machine_part: str) -> CounterSlip | None:
    """The slip; None until its kind and its length in teeth are known. `named`: by what stands on it."""
    fitting = driven.drive.fittings[0] if driven.drive and driven.drive.fittings else None
    found = (
        synchronous.ToothedBelt(synchronous.profile(driven.drive.of), fitting.count, None, fitting.plain)
        if driven.drive and fitting
        else named
    )
    if not found:
        return None
    p = found.profile
    measured = next((w for w in p.widths_m if width_m and abs(w - width_m) <= _NEAR_WIDTH * w), width_m)
    width = (named.width_m if named else None) or measured
    belt = synchronous.ToothedBelt(p, found.teeth, width, found.listed)
    forms = [f.name for f in synchronous.forms_of(p)[1:]]
    section = [f"{p.name}: pitch {fine(p.pitch_m)}, {p.form} teeth, {fine(p.belt_height_m)} over all, {p.material}"]
    section.append(f"{both(width)} wide" if width else "width: measure across its back first, it is part of the name")
    length = [f"{belt.teeth} teeth, {both(belt.length_m, decimals=(2, 1))} round the line of its cord"]
    if not belt.listed:
        length.append("not on the standard list: count the teeth again before you buy")
    if fitting:
        length.append(f"stands taut at centres of {both(fitting.centre_m)} on these wheels")
    refuse = [f"{f}: the same pitch, another tooth; it does not mesh" for f in forms]
    refuse += ["a used belt, or one that was folded: a crimped cord breaks"]
    wheels = driven.drive.wheels if driven.drive else ()
    check = [f"the {w.teeth}-tooth wheel: {fine(w.outside_diameter_m)} over its tips when it is a {p.name}" for w in wheels]
    check += ["wheel teeth for hooked or thinned flanks, and flanges for shine: a worn wheel kills the new belt"]
    from_the_roll = fitting is not None and "roll" in fitting.name
    headline, count = (f"{p.name} open", f"{belt.teeth} teeth from the roll") if from_the_roll else (belt.designation, "one belt")
    return CounterSlip(headline, count, (), machine_part, tuple(section), tuple(length), (), tuple(refuse), tuple(dict.fromkeys(check)))
