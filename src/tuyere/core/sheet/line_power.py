"""Sheet step 3 of a drive that goes by its line: what it carries, and whether that will do."""

from tuyere.core.drives.fitted import SMALL, Duty
from tuyere.core.rating.duties import OutOfRangeError
from tuyere.core.sheet.spec import DriveSpec
from tuyere.core.working.page import Page
from tuyere.core.working.verdict import Tone


def rating(spec: DriveSpec, page: Page) -> None:
    """What the belt or chain carries on these wheels, with the working of its own method."""
    line = spec.line
    if line is None or not page.has("ratio", "belt_speed"):
        return
    if any(p.field == "centre_distance" for p in page.problems):
        return
    line.too_small(page)
    if line.missing:
        page.say("rating", Tone.OPEN, *line.missing)
        return
    try:
        line.rate(spec.own, Duty(spec.driven_class, spec.centre_line_deg), page)
    except OutOfRangeError as reason:
        page.say("rating", Tone.STOP, "No rating for this drive", str(reason))
        return
    _judge(page)


def _judge(page: Page) -> None:
    if not page.has("capacity", "design_power"):
        return
    too_small = next((f for f in page.flags if f.code == SMALL), None)
    capacity, wanted = page.values["capacity"].n, page.values["design_power"].n
    weighed = f"It carries {page.figures['capacity'].us} ({page.figures['capacity'].si}); the design power is {page.figures['design_power'].us} ({page.figures['design_power'].si})."
    if capacity >= wanted and too_small:
        page.say("rating", Tone.WATCH, "By its rating it would carry it, but a wheel is too small", f"{weighed} {too_small.sentence}")
    elif capacity >= wanted:
        page.say("rating", Tone.GOOD, f"It will carry it, with {capacity / wanted - 1:.0%} to spare", weighed)
    else:
        page.say(
            "rating",
            Tone.WATCH,
            f"It will not do: {capacity / wanted:.0%} of the design power",
            weighed + " Take larger wheels, more width or strands, or the next size up.",
        )
        page.flag("underrated", "name", f"It carries {capacity / wanted:.0%} of the design power.")
