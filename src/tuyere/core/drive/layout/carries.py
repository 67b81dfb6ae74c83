"""Whether a stage, and the whole train, will carry it."""

import math
from collections.abc import Sequence

from tuyere.core.basis.figure import Line, both, over
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.layout.duties import ENOUGH, ESTIMATE, ShaftDuty, StageDuty, WheelDuty
from tuyere.core.kinds.loop import Loop
from tuyere.core.kinds.workings import put
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels


def carried_by(
    wheels: Sequence[WheelDuty],
    worst: WheelDuty | None,
    needed: int | None,
    fitted: int,
    factor: float | None,
    loop: Loop,
    on: BeltOnWheels,
) -> list[Verdict]:
    """Whether a stage will carry what is asked, and which wheel of it decides."""
    found = []
    many = "" if len(on.wheels) == 2 else f" {ESTIMATE}"
    if worst and worst.belts and not loop.counted:
        found.append(_judged_whole(worst, loop, many))
    elif worst and needed is not None and worst.rated_w is not None:
        carries = f"{worst.name} wants {worst.belts:.2f}: {both(worst.power_w, 'power')} there, and one belt carries {both(worst.rated_w, 'power')} at {math.degrees(worst.wrap_rad):.0f}° of wrap."
        if fitted >= needed:
            found.append(Verdict("rating", Tone.GOOD, f"{_count(fitted)} will do: {_count(needed)} needed", f"{carries}{many}"))
        else:
            found.append(
                Verdict(
                    "rating",
                    Tone.WATCH,
                    f"{_count(fitted)} will not do: {needed} needed, for {worst.name}",
                    f"{carries} More wrap there, larger wheels, or another section.{many}",
                )
            )
    elif any(w.power_w > 0 for w in wheels):
        why = next((w.why_not for w in wheels if w.why_not), "") or "Say the class of the driven machine and its hours a day."
        found.append(Verdict("rating", Tone.OPEN, "Not rated yet", why))
    else:
        found.append(
            Verdict(
                "rating",
                Tone.OPEN,
                "How much power does each wheel take?",
                "Write it at the driven wheels, in Survey under Many wheels; then belts, pulls and slip stand here.",
            )
        )
    for w in wheels:
        if w.why_not and w.rated_w is None and worst:
            found.append(Verdict("rating", Tone.OPEN, f"{w.name} is not rated", w.why_not))
    return found


def _judged_whole(worst: WheelDuty, loop: Loop, many: str) -> Verdict:
    """A loop that is made stronger by its width or size, not by more of them side by side."""
    assert worst.belts and worst.rated_w is not None
    runs = loop.family.runs
    carries = f"At {worst.name} go {both(worst.power_w, 'power')} and the {runs} carries {both(worst.rated_w, 'power')} there, at {math.degrees(worst.wrap_rad):.0f}° of wrap."
    if worst.belts <= 1 + ENOUGH:
        return Verdict("rating", Tone.GOOD, f"The {runs} will carry it{over(1 / worst.belts)}", f"{carries}{many}")
    return Verdict(
        "rating",
        Tone.WATCH,
        f"The {runs} will not do: {1 / worst.belts:.0%} of what {worst.name} wants",
        f"{carries} Take larger wheels, more width or strands, or the next size up.{many}",
    )


def _count(belts: int) -> str:
    return f"{belts} belt" if belts == 1 else f"{belts} belts"


def carried_whole(page: Page, stages: Sequence[StageDuty], last: ShaftDuty | None) -> None:
    """The figures of the whole under the keys that a drive of two wheels has them by."""
    if last is None:
        return
    way = Line("", "driver to", last.name, last.name, Origin.MEASURED, Origin.MEASURED)
    put(page, "ratio", "speed ratio", "R", "number", last.ratio, [way], "product of D/d, stage after stage", "kinematics", decimals=(3, 3))
    if last.speed is not None:
        put(
            page,
            "driven_speed",
            f"speed of {last.name}",
            "n",
            "rotation",
            last.speed,
            page.lines("ratio"),
            "n = n_1 / R",
            "kinematics",
            limits="Without slip.",
        )
    if stages[0].belt_speed is not None:
        put(page, "belt_speed", "belt speed, first stage", "V", "velocity", stages[0].belt_speed, [], "V = π d n_1", "kinematics")
    driver = stages[0].wheels[0]
    put(page, "wrap_driver", "wrap on the driver", "θ_d", "angle", driver.wrap_rad, [], "from the belt's path", "geometry")
    if stages[0].power_w and stages[0].factor:
        carried = _carried(stages)
        put(
            page,
            "train_power",
            "power taken in",
            "P",
            "power",
            stages[0].power_w,
            [],
            "stated powers, with each stage's loss",
            "drive_traits: well kept",
        )
        factor = stages[0].factor
        put(
            page,
            "design_power",
            "design power",
            "P_d",
            "power",
            stages[0].power_w * factor,
            page.lines("train_power"),
            f"P_d = P · {factor:.2f}",
            ESTIMATE,
        )
        if carried is not None:
            put(
                page,
                "capacity",
                "design power that the weakest wheel lets through",
                "P",
                "power",
                carried * factor,
                page.lines("design_power"),
                "P_d · belts fitted / belts wanted",
                ESTIMATE,
            )


def _carried(stages: Sequence[StageDuty]) -> float | None:
    """What the driver may give so that the weakest wheel of all has its belts."""
    shares = [s.fitted / max(w.belts for w in s.wheels if w.belts) for s in stages if any(w.belts for w in s.wheels)]
    return stages[0].power_w * min(shares) if shares and stages[0].power_w else None
