"""What can be right and hardly is: asked about beside the field it came from, for a point or a unit slips easily."""

from tuyere.core.basis.figure import MANY, both
from tuyere.core.basis.limit import limit
from tuyere.core.basis.page import Page
from tuyere.core.kinds.spec import DriveSpec


def asks(spec: DriveSpec, page: Page) -> None:
    """Flags of a power that is nothing to the drive, of wheels far apart for their size, and of a belt far broader than its small wheel."""
    loop = spec.fitted.loop if spec.fitted else None
    if loop is None:
        return
    if page.has("capacity", "design_power") and page.values["capacity"].n >= MANY * page.values["design_power"].n > 0:
        times = page.values["capacity"].n / page.values["design_power"].n
        page.flag("light-load", "driver_power", f"It could carry {times:.0f} times as much: look at the power again, and at its point.")
    if not page.has("driver_outside", "driven_outside"):
        return
    outside = [page.values[f"{role}_outside"].n for role in ("driver", "driven")]
    if page.has("centre_distance"):
        apart = page.values["centre_distance"].n
        if apart > loop.far_apart.value * sum(outside):
            page.flag(
                "far-apart",
                "centre_distance",
                f"{both(apart)} between wheels of {both(outside[0])} and {both(outside[1])}: look at the unit and the point again.",
            )
    broad, small = loop.broad_m, min(outside)
    if broad and broad > limit("belt over small wheel").value * small:
        page.flag("broad", "belt_width", f"{both(broad)} broad on a wheel of {both(small)}: nobody builds it so. Look at both again.")
