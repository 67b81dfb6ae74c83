"""What to ask for at the counter: a flat belt."""

from tuyere.core.basis.figure import both, fine
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.flat import flat_belts
from tuyere.core.kinds.flat.survey import FlatReading
from tuyere.core.mechanics.on_wheels.wheels import Lay


def slip_of(reading: FlatReading, belt: str, width_m: float | None, machine_part: str) -> CounterSlip | None:
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
    least = kind.least_pulley_m(2 * (drive.wheels[0].line_radius_m - drive.wheels[0].rim_radius_m)) if kind else None
    check = [f"the smallest pulley is {both(small)}: the belt must bend round it" + (f" ({both(least)} at least)" if least else "")]
    check.append("crown and rims for wear, the old joint's direction of travel before it is cut off")
    return CounterSlip("Flat belt", wide, (), machine_part, tuple(section), tuple(length), (), tuple(refuse), tuple(check))
