"""Sheet step 3: design power, and whether what is fitted will do."""

from tuyere.core.basis.figure import Line, figure, given_figure
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import exact
from tuyere.core.basis.verdict import Tone
from tuyere.core.kinds.fitted import RatingDuty
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS, service_factor
from tuyere.core.kinds.spec import DriveSpec


def design_power(spec: DriveSpec, page: Page) -> None:
    """Driver power times the service factor."""
    if not spec.driver_power:
        return
    power = page.put(
        given_figure("driver_power", "driver power", "P", "power", spec.driver_power.value, spec.driver_power.std, spec.driver_power.origin)
    )
    if not (spec.driven_class and spec.hours_per_day):
        return
    hours = given_figure("hours_per_day", "hours a day", "h", "duration", spec.hours_per_day.value, 0.0, spec.hours_per_day.origin)
    duty = duties.duty(spec.hours_per_day.value / 3600)
    up = 1 / page.values["ratio"].n if page.has("ratio") else 1.0
    factor, source = service_factor(
        spec.family, spec.driven_class, spec.driver_class, spec.hours_per_day.value / 3600, up, spec.idler, spec.surroundings, spec.starts
    )
    if spec.family.counts_idler:
        note = f"Idler: {spec.idler}, adds {IDLERS[spec.idler] or 'nothing'}.{spec.family.speed_up(up)[2]}"
    else:
        note = f"Hours a day and idlers are not counted for {spec.family.runs}."
    if SURROUNDINGS[spec.surroundings]:
        note += f" Surroundings {spec.surroundings}: {SURROUNDINGS[spec.surroundings]:g} added, an assumption (common practice, no source)."
    if STARTS[spec.starts] > 1:
        note += f" Frequent or reversing starts multiply it by {STARTS[spec.starts]:g} (GB/T 13575.1 for V-belts, taken for every kind)."
    if spec.idler != "none":
        _idler(spec.idler, page)
    title = next(c.title for c in duties.driven_classes() if c.name == spec.driven_class)
    kinds = [
        Line("", "driven machine", title, title, Origin.CHOSEN, Origin.CHOSEN),
        Line("", "driver class", spec.driver_class, spec.driver_class, Origin.CHOSEN, Origin.CHOSEN),
        hours.line(),
    ]
    page.put(
        figure(
            "service_factor",
            "service factor",
            "SF",
            "number",
            exact(factor),
            kinds,
            f"table: {duties.DUTY_HOURS[duty]}",
            source,
            note=note,
            origin=Origin.STANDARD,
            decimals=(2, 2),
        ),
        exact(factor),
    )
    value = spec.driver_power.u * factor
    page.put(
        figure(
            "design_power",
            "design power",
            "P_d",
            "power",
            value,
            [power.line(), *page.lines("service_factor")],
            "P_d = P · SF",
            source,
        ),
        value,
    )


def _idler(idler: str, page: Page) -> None:
    """Where an idler belongs: IP-20, handbooks (from memory, medium)."""
    inside = "inside" in idler
    place = (
        "An inside idler goes on the slack side, near the large wheel, and is as large as the small one or larger."
        if inside
        else "An outside idler goes on the slack side, near the small wheel: it gives it wrap; flat, and a third larger than the small wheel."
    )
    if "tight" in idler:
        page.say(
            "idler", Tone.WATCH, "The idler presses on the tight side", f"The whole pull bends over it, and its bearing carries it. {place}"
        )
    else:
        page.say("idler", Tone.OPEN, f"Idler on the slack side, {'inside' if inside else 'outside'}", place)


def rating(spec: DriveSpec, page: Page) -> None:
    """What is fitted, rated by its kind's own method."""
    if spec.fitted and page.has("ratio", "belt_speed"):
        spec.fitted.rating(spec.own, RatingDuty(spec.driven_class, spec.centre_line_deg), page)
