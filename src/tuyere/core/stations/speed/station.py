"""What a drive's machine and motor feel of a speed."""

from tuyere.core.drive.answer import Answer
from tuyere.core.drive.survey import DrivenMachine
from tuyere.core.stations.speed.machine_form import MachineReading, read_machine


def felt(on: Answer, new_speed: float | None, machine: DrivenMachine | None = None) -> MachineReading:
    """What the machine feels of another driven speed (rad/s). `machine`: as it is said now, where that is not its survey's."""
    of = machine or on.survey.machine
    words = {**of.part.words, "kind": of.kind}
    return read_machine(on.spec, on.page, on.reading.design, of.part.quantities, words, of.curve, new_speed)
