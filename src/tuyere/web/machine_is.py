"""What a kept machine is: its rows, as the core asks for them."""

from collections.abc import Mapping

from tuyere.core.drive.survey import Survey
from tuyere.core.stations.jobs.machine import MachineIs
from tuyere.core.stations.jobs.machine import machine_is as taken
from tuyere.store.tables import Drive, Machine


def machine_is(machine: Machine, drive: Drive, survey: Survey, said: Mapping[str, bool] | None = None) -> MachineIs:
    """`said`: answers given now, over those that were kept and over the guesses."""
    return taken([machine.kind, machine.name, drive.name, machine.place or ""], machine.traits, survey, said)
