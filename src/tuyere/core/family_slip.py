"""The counter slip of a toothed belt, a chain or a flat belt: what to ask for, and what not to accept."""

from tuyere.core.counter_slip import Slip
from tuyere.core.drives import roller_chain, synchronous
from tuyere.core.drives.flat import flat_belts
from tuyere.core.drives.flat.survey import FlatReading
from tuyere.core.identify.toothed import ToothedReading
from tuyere.core.layout.wheels import Lay
from tuyere.core.toothed_drive import DriveReading
from tuyere.core.working.figure import both, fine

_NEAR_WIDTH = 0.06  # of the width: a tape on a worn edge


def toothed_slip(reading: ToothedReading, driven: DriveReading, width_m: float | None, machine_part: str) -> Slip | None:
    """The slip of a toothed belt or chain; None until its kind and its length in teeth or links are known."""
    if reading.family == "synchronous":
        return _belt(reading, driven, width_m, machine_part)
    return _chain(reading, driven, machine_part)


def _belt(reading: ToothedReading, driven: DriveReading, width_m: float | None, machine_part: str) -> Slip | None:
    named = reading.named
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
    return Slip(headline, count, (), machine_part, tuple(section), tuple(length), (), tuple(refuse), tuple(dict.fromkeys(check)))


def _chain(reading: ToothedReading, driven: DriveReading, machine_part: str) -> Slip | None:
    if not driven.drive or not driven.drive.fittings:
        return None
    fit, strands = driven.drive.fittings[0], reading.strands or 1
    of = roller_chain.chain(driven.drive.of)
    sizes = [f"pitch {fine(of.pitch_m)}"]
    sizes += [f"roller {fine(of.roller_m)}"] if of.roller_m else []
    sizes += [f"{fine(of.inner_width_m)} between the inner plates"] if of.inner_width_m else []
    joint = "with a connecting link" if fit.count % 2 == 0 else "with an offset link and a connecting link"
    small = min(driven.drive.wheels, key=lambda w: w.teeth)
    check = [
        f"the {small.teeth}-tooth sprocket first: hooked or thinned teeth eat a new chain",
        "both sprockets in one plane, and the take-up moved in before the new chain is measured",
    ]
    refuse = [f"what is nearly, but not, {of.name}: {of.nearly_fits}"] if of.nearly_fits else []
    refuse += ["a new piece let into the worn chain: it runs over the teeth at every turn"]
    return Slip(
        f"{of.name}-{strands}", f"{fit.count} pitches, {joint}", (), machine_part, (f"{of.series}: {', '.join(sizes)}",),
        (f"{fit.count} pitches, {both(fit.length_m)} new; centres {both(fit.centre_m)}",), (), tuple(refuse), tuple(check),
    )  # fmt: skip


def flat_slip(reading: FlatReading, belt: str, width_m: float | None, machine_part: str) -> Slip | None:
    """The slip of a flat belt; None until its length is known."""
    drive, kind = reading.drive, flat_belts().get(belt)
    if not drive:
        return None
    wide = f"{both(width_m)} wide" if width_m else "width: measure across it first"
    section = [f"{kind.material}, {kind.made}, {fine(kind.thickness_m)} thick" if kind else "kind: take a piece of the old one along", wide]
    length = [
        f"{both(drive.inside_m)} by a steel tape round the pulleys' rims",
        f"{both(drive.middle_m)} at mid-thickness; the take-off for stretch is the belt maker's",
    ]
    refuse = ["a joint that stands proud on the side that meets the pulley"]
    if drive.lay is not Lay.OPEN:
        refuse.append(f"metal hooks or plates that catch where a {drive.lay} belt rubs")
    small = min(2 * w.rim_radius_m for w in drive.wheels)
    check = [
        f"the smallest pulley is {both(small)}: the belt must bend round it"
        + (f" ({both(kind.smallest_pulley_m)} at least)" if kind and kind.smallest_pulley_m else "")
    ]
    check.append("crown and rims for wear, the old joint's direction of travel before it is cut off")
    return Slip("Flat belt", wide, (), machine_part, tuple(section), tuple(length), (), tuple(refuse), tuple(check))
