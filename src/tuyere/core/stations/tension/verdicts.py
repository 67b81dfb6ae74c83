"""What is said of a stage beside its reading: of its start, of its manual."""

from tuyere.core.basis.figure import both
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import UFloat
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.drive.stage import TightStage
from tuyere.core.stations.tension.judge import between, judge
from tuyere.core.stations.tension.limits import Holds
from tuyere.core.stations.tension.methods import TensionMethod
from tuyere.core.stations.tension.scale import Scale
from tuyere.core.stations.tension.typed import TypedTension


def verdicts_of(
    stage: TightStage, method: TensionMethod, scale: Scale, holds: Holds, typed: TypedTension, strands: tuple[UFloat, ...], page: Page
) -> list[Verdict]:
    """What the reading means, then what is to be said of the start and of the manual."""
    found: list[Verdict] = []
    pushed = next((v for k, v in typed.quantities.items() if k == "deflection" and v.text.strip()), None)
    if strands:
        found += judge(stage, method, scale, holds, typed.fresh, strands, page.values["strand_average"])
    if scale.empty and scale.lowest and scale.slips and scale.lowest.limit_n is not None:
        where = f" at the {stage.wheels[scale.lowest.wheel].name}" if scale.lowest.wheel is not None else ""
        found.append(
            Verdict(
                "window",
                Tone.WATCH,
                "The window is empty: nothing is both tight enough and slack enough",
                f"Running it slips under {both(scale.slips.running.likely_n, 'force')}, and {scale.lowest.name}{where} ends at "
                f"{both(scale.lowest.limit_n, 'force')}. Larger wheels pull less for the same power; more belts share it; an outboard "
                "bearing or a wheel nearer to its bearing stands more.",
            )
        )
    elif scale.capped and scale.lowest and scale.lowest.limit_n is not None:
        where = f" at the {stage.wheels[scale.lowest.wheel].name}" if scale.lowest.wheel is not None else ""
        found.append(
            Verdict(
                "window",
                Tone.OPEN,
                f"Mind the {scale.lowest.name}{where}",
                f"It ends at {both(scale.lowest.limit_n, 'force')} a {stage.strand.one}, under the usual range: stay below it.",
            )
        )
    found += _of_start(stage, scale)
    if stage.share is not None and stage.share < 1:
        found.append(
            Verdict(
                "window",
                Tone.WATCH,
                f"The {stage.loop.family.runs} will not do: {stage.share:.0%} of what this drive wants",
                "By its rating, at Size. No tension mends that: a stronger set, or larger wheels.",
            )
        )
    found += _of_manual(stage, scale, holds)
    q = page.values["span"].n / 64 if page.has("span") else 0.0
    if pushed and method.key in ("gauge", "scale") and strands and page.has("deflection"):
        found.append(
            Verdict("push", Tone.OPEN, "Pushed otherwise than 1/64 of the span", f"1/64 would be {both(q)}; it is reckoned with as typed.")
        )
    return found


def _of_start(stage: TightStage, scale: Scale) -> list[Verdict]:
    """What the start and the jolts ask, where they ask more than the published figure gives."""
    if scale.slips is None or scale.run_in is None or scale.published is None or scale.empty or not stage.loop.slips:
        return []
    aim, slips = scale.run_in.aim_n, scale.slips
    book = f"Published: {between(scale.published[0])}."
    if aim < slips.starting.likely_n * (1 - 1e-9) and scale.lowest:
        return [
            Verdict(
                "window",
                Tone.WATCH,
                "It slips at its start",
                f"It would take {both(slips.starting.likely_n, 'force')} to hold it, and {scale.lowest.name} ends before. A softer start, "
                f"larger wheels or a stronger set. {book}",
            )
        ]
    chirp = " It may chirp for a moment at start." if scale.chirps else ""
    if scale.raised:
        why = "its start" if scale.raised == "start" else "its jolts"
        return [
            Verdict(
                "window",
                Tone.OPEN,
                f"Aim above the published figure, for {why}",
                f"A belt that has run in lets go under {both(aim, 'force')} there.{chirp} {book} Say below how it starts, if it is "
                "otherwise.",
            )
        ]
    if scale.chirps:
        return [
            Verdict(
                "window",
                Tone.OPEN,
                "May chirp for a moment at start",
                f"A cautious grip holds it from {both(slips.starting.cautious_n, 'force')} on; the least tension that does not slip is "
                "enough.",
            )
        ]
    return []


def _of_manual(stage: TightStage, scale: Scale, holds: Holds) -> list[Verdict]:
    """The manual's figure against the window: neither trusted silently nor overruled."""
    if holds.manual_force_n and holds.manual_deflection_m and scale.manual is None:
        return [
            Verdict(
                "manual",
                Tone.OPEN,
                "What does the manual's force push?",
                "One belt, one rib or the whole band: say it below, for the tension differs by as much.",
            )
        ]
    if scale.manual is None:
        return []
    aim, said = scale.manual.aim_n, f"The manual's figure comes to {both(scale.manual.aim_n, 'force')} a {stage.strand.one} here."
    found = []
    if holds.manual_deflection_m and holds.manual_force_n:
        share = holds.manual_deflection_m / stage.spans[stage.longest].length_m
        if abs(share * 64 - 1) > 0.1:
            meant = holds.manual_deflection_m * 64
            said += f" {both(holds.manual_deflection_m)} is not 1/64 of this span but of one of {both(meant)}: the manual may mean another drive or another strand."
    if scale.run_in is None or scale.slips is None:
        if stage.loop.stated:
            return []  # it is the aim itself
        return [Verdict("manual", Tone.OPEN, f"By the manual: {both(aim, 'force')}", said)]
    low = max(scale.slips.running.likely_n, scale.run_in.low_n)
    # A shaft or bearing described here is weighed against the manual; the belt's own rating is not: its maker knew the belt.
    over = [u for u in scale.upper if u.wheel is not None and u.limit_n is not None and aim > u.limit_n]
    if over:
        found.append(
            Verdict(
                "manual",
                Tone.WATCH,
                f"The manual’s figure is over the {over[0].name}",
                f"{said} Ask the machine's maker, and go by the lower.",
            )
        )
    elif aim < low:
        found.append(
            Verdict(
                "manual",
                Tone.OPEN,
                "The manual’s figure is slacker than worked out",
                f"{said} {between(scale.run_in)} carries its design power; it slips under {both(scale.slips.running.likely_n, 'force')}. "
                "Check the span and what is pushed; then decide which to go by.",
            )
        )
    elif aim > (scale.new.high_n if scale.new else scale.run_in.high_n) * 1.05:
        found.append(
            Verdict(
                "manual",
                Tone.OPEN,
                "The manual’s figure is tighter than worked out",
                f"{said} {between(scale.run_in)} comes of the power, the start and the wheels; the manual comes first. Check the span and "
                "what is pushed.",
            )
        )
    else:
        found.append(Verdict("manual", Tone.GOOD, "The manual’s figure lies in the window", said))
    return found
