"""A stage of a layout as the Tension station looks at it."""

from tuyere.core.drive.layout.duties import TrainDuty
from tuyere.core.drive.stage import StageWheel, TightStage
from tuyere.core.kinds.held import HeldBy
from tuyere.core.mechanics.on_wheels.wheels import Lay


def stage_of(train: TrainDuty, number: int, held_by: HeldBy, driven_class: str | None, driver_class: str = "normal") -> TightStage | None:
    """The stage of the belt `number`, from 1; None where it does not run, or not in one plane."""
    read, b = train.read, number - 1
    if read.train is None or not 0 <= b < len(read.train.belts) or read.on_wheels[b].lay is Lay.QUARTER:
        return None
    answer, on = read.train.belts[b], read.on_wheels[b]
    duty = train.stage(number)
    if answer.path is None or duty is None:
        return None
    powers = {w.place: w.power_w for w in duty.wheels}
    given = {i: -powers.get(read.places[b][i], 0.0) for i in answer.order if on.wheels[i].role != "driver"}
    wheels = tuple(
        StageWheel(
            w.name,
            w.role,
            w.x_m,
            w.y_m,
            w.line_radius_m,
            w.rim_radius_m,
            w.contact,
            w.face,
            given.get(i, -sum(given.values())),
            state.speed_rad_per_s,
            w.rolls_radius_m,
        )
        for i, state in zip(answer.order, answer.wheels, strict=True)
        for w in (on.wheels[i],)
    )
    loop = read.belts[b]
    made = loop.made.length_m if loop.made else None
    wants = [w.belts for w in duty.wheels if w.belts]
    share = (duty.fitted if loop.counted else 1) / max(wants) if wants else None
    return TightStage(
        number,
        duty.title,
        loop,
        wheels,
        answer.wheels[0].turns,
        on.lay is Lay.CROSSED,
        held_by,
        duty.factor,
        driven_class,
        made,
        high_torque=driver_class == "high",
        share=share,
    )
