"""A drive on two wheels as a stage of the Tension station, from what its sheet has."""

import math

from tuyere.core.drive.sheet.solve import Sheet
from tuyere.core.drive.stage import StageWheel, TightStage
from tuyere.core.kinds.fitted import ROLES
from tuyere.core.kinds.held import HeldBy
from tuyere.core.kinds.loop import Loop
from tuyere.core.kinds.spec import DriveSpec


def stage_of(spec: DriveSpec, sheet: Sheet, loop: Loop, held_by: HeldBy) -> TightStage | None:
    """None until both wheels and their centres are known."""
    f = sheet.figures
    if any(f"{role}_datum" not in f for role in ROLES) or "centre_distance" not in f or spec.fitted is None:
        return None
    along, apart = math.radians(spec.centre_line_deg), f["centre_distance"].value_si
    power = spec.driver_power.value if spec.driver_power else 0.0
    wheels = tuple(
        StageWheel(
            f"{role} {spec.family.wheel}",
            role,
            x,
            y,
            f[f"{role}_datum"].value_si / 2,
            f[f"{role}_outside"].value_si / 2,
            face="flat" if spec.fitted.flat_wheel == role else "grooved",
            power_w=power if role == "driver" else -power,
            speed=f[f"{role}_speed"].value_si if f"{role}_speed" in f else None,
            rolls_m=f["belt_speed"].value_si / f[f"{role}_speed"].value_si if "belt_speed" in f and f[f"{role}_speed"].value_si else None,
        )
        for role, x, y in (("driver", 0.0, 0.0), ("driven", apart * math.cos(along), apart * math.sin(along)))
    )
    belt = f.get("belt_length")
    factor = f["service_factor"].value_si if "service_factor" in f else None
    away = spec.slide.away.value if spec.slide.away else None
    share = f["capacity"].value_si / f["design_power"].value_si if "capacity" in f and "design_power" in f else None
    return TightStage(
        1,
        f"{wheels[0].name} to {wheels[1].name}",
        loop,
        wheels,
        -1 if spec.rotation == "clockwise" else 1,
        spec.fitted.crossed,
        held_by,
        factor,
        spec.driven_class,
        belt.value_si if belt else None,
        away,
        high_torque=spec.driver_class == "high",
        share=share,
    )
