"""Sheet step 5: the tension to set, and the gauge's deflection."""

from tuyere.core.basis.figure import figure
from tuyere.core.basis.page import Page
from tuyere.core.basis.uncertainty import wrapped
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.mechanics import tension

_deflection = wrapped(tension.deflection)


def target(spec: DriveSpec, page: Page) -> None:
    """The deflection that a gauge gives, and the tension that the drive's kind wants."""
    if not page.has("span"):
        return
    aim = _deflection(page.values["span"])
    page.put(
        figure(
            "deflection",
            "deflection to aim for",
            "q",
            "length",
            aim,
            page.lines("span"),
            "q = t / 64",
            "common practice, no source; IP-20",
            note="1/64 in for each inch of span, 1.6 mm for each 100 mm. Shown to the nearest 1/64 in; the force is worked out for the exact value.",
            to_set=True,
        ),
        aim,
    )
    if spec.fitted:
        spec.fitted.target(page)
