"""A toothed, flat or chain drive as the sheet takes it: the diameters of its line, and how fast it may run."""

from tuyere.core.families import roller_chain, synchronous
from tuyere.core.families.flat import flat_belts
from tuyere.core.flat_drive import FlatDrive
from tuyere.core.layout.wheels import Lay
from tuyere.core.origin import Origin
from tuyere.core.quantity import to_si
from tuyere.core.sheet.spec import LineDrive, LineWheel
from tuyere.core.toothed_drive import ToothedDrive
from tuyere.core.uncertainty import standard_uncertainty

_CAST_IRON = to_si(6500, "velocity", "ft/min")
_LEATHER = to_si(5750, "velocity", "ft/min")


def of_toothed(family: str, drive: ToothedDrive, size: float | None = None) -> LineDrive:
    """A toothed belt or chain: pitch diameters follow from the teeth. size: width (m) or strands."""
    wheels = [LineWheel(w.pitch_diameter_m, w.outside_diameter_m, 0.0, Origin.MEASURED, w.teeth) for w in drive.wheels]
    centre = drive.fittings[0].centre_m if drive.fittings else None
    if family == "synchronous":
        p = synchronous.profile(drive.of)
        return LineDrive(
            family, wheels[0], wheels[1], centre, p.belt_height_m, p.belt_height_m - p.tooth_height_m - p.line_under_tip_m, _CAST_IRON,
            "IP-24: 6500 ft/min on cast iron; faster wants balanced wheels (high)", of=p, size=size,
        )  # fmt: skip
    c = roller_chain.chain(drive.of)
    height = c.plate_height_m or 1.2 * c.on_sprocket_m
    return LineDrive(family, wheels[0], wheels[1], centre, height, height / 2, None, "", of=c, size=size or 1)


def of_flat(drive: FlatDrive, belt: str, width_m: float | None = None) -> LineDrive:
    """A flat belt: its line runs at mid-thickness."""
    kind = flat_belts().get(belt)
    wheels = []
    for w in drive.wheels:
        std = standard_uncertainty(2 * w.rim_radius_m, "length", Origin.MEASURED)
        wheels.append(LineWheel(2 * w.line_radius_m, 2 * w.rim_radius_m, std, Origin.MEASURED))
    thickness = wheels[0].line_m - wheels[0].rim_m
    leather = kind is None or kind.material == "leather"
    fastest, source = (
        (_LEATHER, "5500 to 6000 ft/min for leather: handbooks (medium)") if leather else (_CAST_IRON, "6500 ft/min on cast iron (high)")
    )
    centre = drive.wheels[1].x_m - drive.wheels[0].x_m
    return LineDrive(
        "flat belt", wheels[0], wheels[1], centre, thickness, thickness / 2, fastest, source, drive.lay is Lay.CROSSED, kind, width_m
    )
