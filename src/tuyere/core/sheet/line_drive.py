"""A toothed, flat or chain drive as the sheet takes it: the diameters of its line, and how fast it may run."""

from tuyere.core.drives import roller_chain, synchronous
from tuyere.core.drives.fitted import LineDrive, LineWheel
from tuyere.core.drives.flat import FlatBelt, flat_belts
from tuyere.core.drives.flat.survey import FlatDrive
from tuyere.core.limit import limit
from tuyere.core.origin import Origin
from tuyere.core.speed import CAST_IRON_RIM_LIMIT_M_PER_S
from tuyere.core.toothed_drive import ToothedDrive
from tuyere.core.uncertainty import standard_uncertainty


def toothed_line(of: synchronous.Profile, driver: LineWheel, driven: LineWheel, centre_m: float | None, width_m: float | None) -> LineDrive:
    """A toothed belt on two pulleys."""
    return LineDrive(
        "synchronous", driver, driven, centre_m, of.belt_height_m, of.belt_height_m - of.tooth_height_m - of.line_under_tip_m, CAST_IRON_RIM_LIMIT_M_PER_S,
        "IP-24: 6500 ft/min on cast iron; faster wants balanced wheels (high)", of=of, size=width_m,
    )  # fmt: skip


def chain_line(
    of: roller_chain.Chain, driver: LineWheel, driven: LineWheel, centre_m: float | None, strands: float | None, pitches: int | None = None
) -> LineDrive:
    """A chain on two sprockets."""
    height = of.plate_height_m or 1.2 * of.on_sprocket_m
    fast = limit("chain speed")
    return LineDrive(
        "roller chain", driver, driven, centre_m, height, height / 2, fast.value, fast.source, of=of, size=strands or 1, pitches=pitches
    )


def flat_line(
    of: FlatBelt | None, driver: LineWheel, driven: LineWheel, centre_m: float, width_m: float | None, lay: str = "open"
) -> LineDrive:
    """A flat belt on two pulleys; one of a kind that is not known counts as leather."""
    thickness = driver.line_m - driver.rim_m
    leather = of is None or of.material == "leather"
    fastest, source = (
        (limit("leather speed").value, limit("leather speed").source)
        if leather
        else (CAST_IRON_RIM_LIMIT_M_PER_S, "6500 ft/min on cast iron (high)")
    )
    return LineDrive("flat belt", driver, driven, centre_m, thickness, thickness / 2, fastest, source, lay, of, width_m)


def of_toothed(family: str, drive: ToothedDrive, size: float | None = None) -> LineDrive:
    """A toothed belt or chain as surveyed: pitch diameters follow from the teeth. size: width (m) or strands."""
    driver, driven = (LineWheel(w.pitch_diameter_m, w.outside_diameter_m, 0.0, Origin.MEASURED, w.teeth) for w in drive.wheels)
    centre = drive.fittings[0].centre_m if drive.fittings else None
    if family == "synchronous":
        return toothed_line(synchronous.profile(drive.of), driver, driven, centre, size)
    pitches = drive.fittings[0].count if drive.fittings else None
    return chain_line(roller_chain.chain(drive.of), driver, driven, centre, size, pitches)


def of_flat(drive: FlatDrive, belt: str, width_m: float | None = None) -> LineDrive:
    """A flat belt as surveyed: its line runs at mid-thickness."""
    driver, driven = (
        LineWheel(
            2 * w.line_radius_m, 2 * w.rim_radius_m, standard_uncertainty(2 * w.rim_radius_m, "length", Origin.MEASURED), Origin.MEASURED
        )
        for w in drive.wheels
    )
    centre = drive.wheels[1].x_m - drive.wheels[0].x_m
    return flat_line(flat_belts().get(belt), driver, driven, centre, width_m, drive.lay.value)
