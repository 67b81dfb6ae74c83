"""What the driven machine and its motor feel of another speed: flow, pressure, power, torque and amps, and where it must stop.

Fans and centrifugal pumps by the laws of similarity, positive displacement by its volume a turn, constant torque by its name
(AMCA 201; pump texts, from memory). Amps from load: the magnetizing current stands at right angles to the working one, so I² = I₀² +
(I_FL² - I₀²) (P/P_plate)² (phasor sum; any text on induction motors), with no-load amps of 0.3 to 0.5 of full-load ones where they were
not read (common practice, no source).
"""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.figure import shown
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.uncertainty import UFloat, exact, probability_between, sureness, uncertain
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.stations.speed.air import similar

MachineKind = Literal["fan", "centrifugal pump", "positive displacement", "constant torque"]
KINDS: dict[MachineKind, str] = {
    "fan": "a fan or blower",
    "centrifugal pump": "a centrifugal pump",
    "positive displacement": "a pump or blower that displaces a fixed volume a turn",
    "constant torque": "a conveyor, elevator, mill or other of constant torque",
}
LEAST_IDLE = 0.3  # of full-load amps: common practice, no source
NO_LOAD_SHARE = uncertain(0.4, 0.05, "no-load amps")
_GAP = 0.10  # measured amps further than this from the predicted ones mean something: common practice, no source


@dataclass(frozen=True)
class Motor:
    """The motor by its plate: power (W), service factor, full-load amps, and no-load amps when they were read (A)."""

    power_w: float | None = None
    service_factor: float = 1.0
    full_load_a: float | None = None
    no_load_a: float | None = None

    def _idle(self) -> UFloat:
        assert self.full_load_a
        return exact(self.no_load_a) if self.no_load_a else NO_LOAD_SHARE * self.full_load_a

    def power_at(self, amps: UFloat) -> UFloat | None:
        """Power at the shaft (W) for measured amps; nothing at no-load amps or less; None without a plate.

        >>> m = Motor(10_000.0, 1.0, 20.0, 8.0)
        >>> round(m.power_at(exact((8**2 + (20**2 - 8**2) * 0.25) ** 0.5)).n)
        5000
        """
        if not self.power_w or not self.full_load_a:
            return None
        idle = self._idle()
        working = amps**2 - idle**2
        if working.n <= 0:
            return uncertain(0.0, 0.05 * self.power_w, "amps near no load")
        return self.power_w * (working / (self.full_load_a**2 - idle**2)) ** 0.5

    def amps_at(self, power: UFloat) -> UFloat | None:
        """Amps (A) for a power at the shaft; None without a plate."""
        if not self.power_w or not self.full_load_a:
            return None
        idle = self._idle()
        return (idle**2 + (self.full_load_a**2 - idle**2) * (power / self.power_w) ** 2) ** 0.5


@dataclass(frozen=True)
class Now:
    """The machine as it runs: speed (rad/s), power (W) and where that comes from, flow (m3/s) and pressure (Pa) where known.

    `power_assumed`: nothing was read of the load, the plate stands in for it.
    """

    speed: UFloat
    power: UFloat | None
    power_from: str
    flow: float | None = None
    pressure: float | None = None
    displacement_m3: float | None = None
    power_assumed: bool = False


@dataclass(frozen=True)
class Limits:
    """Where it must stop: the machine's highest speed (rad/s), the driven rim's radius (m) and its speed limit (m/s)."""

    most_speed: float | None = None
    driven_rim_m: float | None = None
    rim_limit_m_per_s: float | None = None


@dataclass(frozen=True)
class Row:
    """One quantity before and after."""

    key: str
    label: str
    now: tuple[str, str] | None
    new: tuple[str, str] | None
    change: float | None
    law: str


@dataclass(frozen=True)
class Felt:
    """What changes, the amps to expect (A), whether something would be overloaded, and what to say."""

    rows: tuple[Row, ...]
    amps: UFloat | None
    overloaded: bool
    verdicts: tuple[Verdict, ...]


_LAWS: dict[MachineKind, tuple[str, str, str]] = {
    "fan": ("as speed", "as speed squared, and as density", "as speed cubed, and as density"),
    "centrifugal pump": ("as speed", "as speed squared", "as speed cubed"),
    "positive displacement": ("volume a turn × speed", "stays: the system sets it", "as speed"),
    "constant torque": ("as speed", "", "as speed"),
}


def powers(kind: MachineKind, speed_ratio: float, density_ratio: float = 1.0) -> tuple[float, float, float]:
    """Flow, pressure and power after over before.

    >>> powers("positive displacement", 0.5)
    (0.5, 1.0, 0.5)
    """
    if kind in ("fan", "centrifugal pump"):
        law = similar(speed_ratio, density_ratio if kind == "fan" else 1.0)
        return law.flow, law.pressure, law.power
    return speed_ratio, 1.0, speed_ratio


def feel(kind: MachineKind, now: Now, new_speed: float, motor: Motor, limits: Limits, density_ratio: float = 1.0) -> Felt:
    """The machine at `new_speed` (rad/s), on the same system."""
    ratio = new_speed / now.speed
    flow, pressure, power = powers(kind, ratio.n, density_ratio)
    law = _LAWS[kind]
    rows = [Row("speed", "driven speed", shown(now.speed.n, "rotation"), shown(new_speed, "rotation"), ratio.n - 1, "")]
    liquid = kind in ("centrifugal pump", "positive displacement")
    unit = "liquid flow" if liquid else "airflow"
    volume = now.flow
    if now.displacement_m3:
        volume = now.displacement_m3 * now.speed.n / (2 * 3.141592653589793)
    rows.append(_row("flow", "flow", volume, flow, unit, law[0]))
    if law[1]:
        rows.append(_row("pressure", "pressure", now.pressure, pressure, "pressure", law[1]))
    cube = ratio**3 * density_ratio if kind in ("fan", "centrifugal pump") else ratio
    after = now.power * cube if now.power is not None else None
    rows.append(_row("power", "power at the shaft", now.power.n if now.power is not None else None, power, "power", law[2]))
    rows.append(Row("torque", "torque on the driven shaft", None, None, power / ratio.n - 1, "power over speed"))
    amps = motor.amps_at(after) if after is not None else None
    before = motor.amps_at(now.power) if now.power is not None else None
    if amps is not None and before is not None:
        rows.append(
            Row(
                "amps",
                "motor amps",
                shown(before.n, "current"),
                shown(amps.n, "current"),
                amps.n / before.n - 1,
                "magnetizing current stays, working current as load",
            )
        )
    stops = [*_speed_stops(new_speed, limits), *_power_stops(after, motor, ratio.n - 1, now)]
    overloaded = any(v.tone is Tone.STOP for v in stops)
    unjudged = not_judged(now.speed.n, new_speed, limits.most_speed, kind)
    if not overloaded:
        stops += [*([unjudged] if unjudged else []), *_fine(after, motor, ratio.n, power, unjudged is not None, now.power_assumed)]
    return Felt(tuple(rows), amps, overloaded, (*stops, *_what_it_buys(kind, ratio.n)))


_RISE = 1.005  # less than this is no rise


def not_judged(now: float, new: float, most: float | None, kind: MachineKind | None = None) -> Verdict | None:
    """A rise of speed (rad/s) of a machine whose highest speed is not known is not judged, whatever the motor carries.

    None where it is, or none rises.
    """
    if most is not None or new <= now * _RISE:
        return None
    what = (
        "A fan wheel's class limit stands on its plate or in its list: past it the wheel can burst."
        if kind in (None, "fan")
        else "Its plate or manual says how fast it may turn: past that it can come apart."
    )
    return Verdict(
        "machine",
        Tone.OPEN,
        f"{new / now - 1:+.0%} in speed: the machine itself is not judged",
        f"{what} Find its highest speed and write it under The machine before you fit this.",
    )


def _row(key: str, label: str, value: float | None, factor: float, kind: str, law: str) -> Row:
    now = shown(value, kind) if value is not None else None
    return Row(key, label, now, shown(value * factor, kind) if value is not None else None, factor - 1, law)


def _speed_stops(new_speed: float, limits: Limits) -> list[Verdict]:
    found = []
    if limits.most_speed and new_speed > limits.most_speed * (1 + 1e-9):
        found.append(
            Verdict(
                "machine",
                Tone.STOP,
                f"Stop: the machine may turn {shown(limits.most_speed, 'rotation')[0]} at most",
                "Its plate or manual says so; a wheel or fan past its limit comes apart. Choose a slower pair.",
                "sure",
            )
        )
    if limits.driven_rim_m and limits.rim_limit_m_per_s:
        rim = limits.driven_rim_m * new_speed
        if rim > limits.rim_limit_m_per_s:
            told = [show(v, "velocity", System.US) for v in (rim, limits.rim_limit_m_per_s)]
            found.append(
                Verdict(
                    "machine",
                    Tone.STOP,
                    f"Stop: the driven rim would run {told[0]}",
                    f"Its limit is {told[1]}, unless another is cast on it.",
                    "sure",
                )
            )
    return found


def _power_stops(after: UFloat | None, motor: Motor, faster: float, now: Now) -> list[Verdict]:
    if after is None or not motor.power_w:
        return []
    power_from = now.power_from
    if now.power_assumed and after.n > motor.power_w * (1 + 1e-9):
        return [
            Verdict(
                "machine",
                Tone.WATCH,
                f"Fully loaded now, the motor would carry {after.n / motor.power_w:.0%} of its plate",
                f"{faster:+.0%} in speed. Nothing was read of its load: read its amps, and it can be judged.",
            )
        ]
    most = motor.power_w * motor.service_factor
    over = 1 - probability_between(after, -1e12, most)
    told = [f"{a} ({b})" for a, b in (shown(after.n, "power"), shown(motor.power_w, "power"))]
    why = f"{told[0]} on a {told[1]} motor{f', service factor {motor.service_factor:g}' if motor.service_factor > 1 else ''}. Load now: {power_from}."
    if after.n > most:
        return [
            Verdict(
                "machine",
                Tone.STOP,
                f"Stop: the motor would carry {after.n / motor.power_w:.0%} of its plate",
                f"{why} {faster:+.0%} in speed. Go less far, or fit a larger motor, wiring and protection with it.",
                sureness(over).value,
            )
        ]
    if after.n > motor.power_w * (1 + 1e-9):
        return [
            Verdict(
                "machine",
                Tone.WATCH,
                f"Into the service factor: {after.n / motor.power_w:.0%} of the plate",
                f"{why} The factor is a margin for bad days, not for every day.",
                sureness(1 - over).value,
            )
        ]
    return []


def _fine(after: UFloat | None, motor: Motor, ratio: float, power: float, unjudged: bool, assumed: bool) -> list[Verdict]:
    if after is None or not motor.power_w:
        return [
            Verdict(
                "machine",
                Tone.OPEN,
                f"{ratio - 1:+.1%} in speed is {power - 1:+.0%} in power",
                "Read the motor's plate and its amps to see what is left: power cannot be judged without.",
            )
        ]
    if after.n > motor.power_w:
        return []
    sure = "" if assumed else sureness(probability_between(after, -1e12, motor.power_w)).value
    told = f"{ratio - 1:+.1%} in speed is {power - 1:+.0%} in power."
    if unjudged:
        return [Verdict("machine", Tone.OPEN, f"The motor would carry it: {after.n / motor.power_w:.0%} of its plate", told, sure)]
    return [Verdict("machine", Tone.GOOD, f"The motor carries it: {after.n / motor.power_w:.0%} of its plate", told, sure)]


def _what_it_buys(kind: MachineKind, ratio: float) -> list[Verdict]:
    if kind == "positive displacement" and ratio < 0.97:
        return [
            Verdict(
                "buys",
                Tone.OPEN,
                f"For the same flow it wants a pump of {1 / ratio:.2f} times the volume a turn",
                "What slow running buys is wear, quiet, priming from a tank and less cavitation; not flow.",
            )
        ]
    if kind == "positive displacement" and ratio > 1.03:
        return [
            Verdict(
                "buys",
                Tone.OPEN,
                "Faster means more wear, and more suction asked",
                "It primes worse and cavitates sooner; its valves and seals count turns.",
            )
        ]
    if kind == "centrifugal pump" and ratio > 1.03:
        return [
            Verdict(
                "buys",
                Tone.OPEN,
                "Look at the suction: what it needs rises as speed squared",
                "And the casing's pressure with it: its manual gives the most.",
            )
        ]
    return []


def amps_gap(measured: float, predicted: UFloat, kind: MachineKind) -> Verdict:
    """What the clamp meter says beside the prediction, both in A, at the new speed, doors and panels closed."""
    gap = measured / predicted.n - 1
    doubt = max(_GAP, 2 * predicted.s / predicted.n)
    told = f"{measured:.1f} A read, {predicted.n:.1f} A expected (± {2 * predicted.s:.1f})."
    if abs(gap) <= doubt:
        return Verdict("amps", Tone.GOOD, "The clamp meter agrees", told)
    if gap > 0:
        air = "A door or panel open, filters out or dampers wider than thought; " if kind == "fan" else "More flow than thought; "
        return Verdict(
            "amps",
            Tone.WATCH,
            f"It draws {gap:.0%} more than expected",
            f"{told} {air}a bearing or belt too tight; low voltage. Close up and read again before anything else.",
        )
    air = "ducts or filters shut it off, or the air is warm" if kind == "fan" else "the flow is throttled, or it draws air"
    return Verdict(
        "amps",
        Tone.WATCH,
        f"It draws {-gap:.0%} less than expected",
        f"{told} The driven shaft may not have come up (slip: read the tachometer), {air}.",
    )
