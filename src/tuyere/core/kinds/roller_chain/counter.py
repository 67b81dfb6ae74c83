"""What to ask for at the counter: a chain."""

from tuyere.core.basis.figure import both, fine
from tuyere.core.kinds import roller_chain
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.teeth import DriveReading


def slip_of(strands: int, driven: DriveReading, machine_part: str) -> CounterSlip | None:
    """The slip; None until its kind and its length in links are known."""
    if not driven.drive or not driven.drive.fittings:
        return None
    fit = driven.drive.fittings[0]
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
    return CounterSlip(
        f"{of.name}-{strands}",
        f"{fit.count} pitches, {joint}",
        (),
        machine_part,
        (f"{of.series}: {', '.join(sizes)}",),
        (f"{fit.count} pitches, {both(fit.length_m)} new; centres {both(fit.centre_m)}",),
        (),
        tuple(refuse),
        tuple(check),
    )
