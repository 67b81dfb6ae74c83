"""What the machine feels, from the sheet and what was typed of motor, machine and air."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import shown
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import QuantityError, System, show
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed, given
from tuyere.core.basis.uncertainty import UFloat, exact, uncertain
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.mechanics.speed import CAST_IRON_RIM_LIMIT_M_PER_S
from tuyere.core.stations.speed.air import CurveError, FanCurve, density, fan_curve, flow_at_pressure, working_point
from tuyere.core.stations.speed.machine import KINDS, LEAST_IDLE, Felt, Limits, MachineKind, Motor, Now, amps_gap, feel

_CLAMP_STD = 0.02  # of a clamp meter's reading: common practice, no source
_POINTS = 40


@dataclass(frozen=True)
class CurveLine:
    """A curve to draw: flow (m3/s) and pressure (Pa), point after point; `what`: fan now, fan then, ducts."""

    what: str
    points: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class MachineReading:
    """What the machine feels at the new speed; None until kind, speed now and new speed are known.

    Curves and working points for the drawing.
    """

    felt: Felt | None
    curves: tuple[CurveLine, ...]
    at: tuple[tuple[float, float], ...]
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]


def read_machine(
    spec: DriveSpec,
    page: Page,
    design: Mapping[str, float],
    quantities: Mapping[str, Typed],
    words: Mapping[str, str],
    curve: Sequence[tuple[Typed, Typed]],
    new_speed: float | None,
) -> MachineReading:
    """Read the machine; each problem beside its field. new_speed in rad/s, from a target, a sheave's setting, or typed."""
    reader = FieldReader(quantities, words)
    kind = next((k for k in KINDS if k == words.get("kind", "")), None)
    typed_new = reader.value("new_speed", "target_speed")
    new = typed_new if typed_new is not None else new_speed
    service = reader.number("service_factor", 1.0, 1.6, "The motor's service factor stands on its plate: 1.0 to 1.4, mostly 1.0 or 1.15.")
    motor = Motor(
        spec.driver_power.value if spec.driver_power else None,
        service or 1.0,
        design.get("design_amps"),
        reader.value("no_load_amps", "amps"),
    )
    air_now = _air(reader, "temperature_now", "altitude")
    same = reader.words.get("temperature_new", "").strip() in ("", "-")
    air_then = air_now if same else _air(reader, "temperature_new", "altitude")
    limits = Limits(
        reader.value("most_speed", "machine_speed"),
        page.values["driven_outside"].n / 2 if page.has("driven_outside") else None,
        CAST_IRON_RIM_LIMIT_M_PER_S,
    )
    amps = reader.value("amps_now", "amps")
    _possible_amps(motor, amps, reader)
    typed_power = reader.value("power_now", "machine_power")
    power, power_from = _power(motor, amps, typed_power)
    assumed = typed_power is None and (amps is None or motor.power_at(exact(amps)) is None)
    speed = _speed_now(spec, page)
    lines, at, flow, said = _curves(reader, curve, quantities, kind, speed, new, air_now, air_then, design)
    if kind is None or speed is None or new is None or reader.problems:
        wanted = "kind of machine" if kind is None else "driven speed now" if speed is None else "new speed"
        verdict = Verdict(
            "machine",
            Tone.OPEN,
            f"The {wanted} is wanted",
            "Then flow, pressure, power and amps follow; read amps and pressure now, and the answer is worth more.",
        )
        return MachineReading(None, lines, at, (verdict, *said), reader.notes, tuple(reader.problems))
    liquid = kind in ("centrifugal pump", "positive displacement")
    flow_now = reader.value("flow_now", "liquid_flow" if liquid else "machine_flow")
    pressure = reader.value("pressure_now", "machine_pressure")
    now = Now(
        speed,
        power,
        power_from,
        flow if flow is not None else flow_now if flow_now is not None or liquid else design.get("design_airflow"),
        pressure if pressure is not None else design.get("design_pressure"),
        reader.value("displacement"),
        assumed,
    )
    felt = feel(kind, now, new, motor, limits, air_then / air_now)
    verdicts = [*felt.verdicts, *said]
    after = reader.value("amps_after", "amps")
    if after is not None and felt.amps is not None:
        verdicts.append(amps_gap(after, felt.amps, kind))
    if amps is None and motor.full_load_a and power is not None:
        verdicts.append(
            Verdict(
                "live",
                Tone.OPEN,
                "Amps were not read: the motor is taken as fully loaded",
                "A clamp meter on one lead, doors and panels closed as it runs; live parts: a qualified person only.",
            )
        )
    return MachineReading(felt, lines, at, tuple(verdicts), reader.notes, tuple(reader.problems))


def _possible_amps(motor: Motor, amps: float | None, reader: FieldReader) -> None:
    """Amps under no load would be a load less than nothing; no-load amps are a part of the full-load ones."""
    full, idle = motor.full_load_a, motor.no_load_a
    if full and idle and idle >= full:
        reader.problems.append(
            Problem("no_load_amps", f"No-load amps are a part of the full-load {full:g} A, mostly 30 to 50 %: read them with the belt off.")
        )
    elif amps is not None and full and amps < (idle or LEAST_IDLE * full):
        told = (
            f"the {idle:g} A read without load"
            if idle
            else f"{LEAST_IDLE:.0%} of the full-load {full:g} A, the least that motors draw without load"
        )
        reader.problems.append(
            Problem("amps_now", f"{amps:g} A is under {told}: no motor draws less. Read one lead at a time, and look at the meter's range.")
        )


def _speed_now(spec: DriveSpec, page: Page) -> UFloat | None:
    if spec.tach_driven:
        return spec.tach_driven.u
    return page.values.get("driven_speed")


def _power(motor: Motor, amps: float | None, typed: float | None) -> tuple[UFloat | None, str]:
    """Power now and where it comes from: amps read, else as typed, else the plate."""
    if amps is not None:
        found = motor.power_at(uncertain(amps, _CLAMP_STD * amps, "amps"))
        if found is not None:
            return found, f"{amps:.1f} A read"
    if typed is not None:
        return exact(typed), "as typed"
    unread = (
        "taken as the plate's: amps say nothing without the full-load amps"
        if amps is not None
        else "taken as the plate's, nothing was read"
    )
    return (exact(motor.power_w), unread) if motor.power_w else (None, "not known")


def _air(reader: FieldReader, key: str, altitude: str) -> float:
    """Density of the air from a temperature like 70 F or 21 C and the height over the sea."""
    celsius = reader.celsius(key)
    return density(20.0 if celsius is None else celsius, reader.value(altitude) or 0.0)


def _curves(
    reader: FieldReader,
    curve: Sequence[tuple[Typed, Typed]],
    quantities: Mapping[str, Typed],
    kind: MachineKind | None,
    speed: UFloat | None,
    new: float | None,
    air_now: float,
    air_then: float,
    design: Mapping[str, float],
) -> tuple[tuple[CurveLine, ...], tuple[tuple[float, float], ...], float | None, list[Verdict]]:
    """The fan's curve now and then, the ducts through the working point, that point, and the flow now."""
    points = _points(reader, curve)
    at_speed = reader.value("curve_speed", "train_speed")
    if kind != "fan" or not points or speed is None:
        return (), (), None, []
    if at_speed is None:
        reader.problems.append(Problem("curve_speed", "Write the speed that the curve holds for: it stands on the curve."))
        return (), (), None, []
    try:
        given_curve = fan_curve(at_speed, points)
        here = given_curve.at(speed.n, air_now)
        pressure = reader.value("pressure_now", "machine_pressure")
        if pressure is not None:
            flow = flow_at_pressure(here, pressure)
        elif "design_airflow" in design and "design_pressure" in design:
            flow, pressure = working_point(here, design["design_pressure"] / design["design_airflow"] ** 2)
        else:
            return (_line("fan now", here),), (), None, []
        resistance = pressure / flow**2
        lines = [_line("fan now", here), _ducts(resistance, here.flows[-1])]
        at = [(flow, pressure)]
        if new is not None:
            then = here.at(new, air_then)
            at.append(working_point(then, resistance * air_then / air_now))
            lines.append(_line("fan then", then))
    except CurveError as reason:
        return (), (), None, [Verdict("curve", Tone.WATCH, "The fan's curve does not meet the readings", str(reason))]
    return tuple(lines), tuple(at), flow, [_against_design(flow, design)] if "design_airflow" in design else []


def _against_design(flow: float, design: Mapping[str, float]) -> Verdict:
    wanted = design["design_airflow"]
    share = flow / wanted
    told = f"{show(flow, 'airflow', System.US)} by the curve, {show(wanted, 'airflow', System.US)} wanted."
    if abs(share - 1) <= 0.05:
        return Verdict("curve", Tone.GOOD, f"It moves {share:.0%} of its design air", told)
    return Verdict("curve", Tone.WATCH if share < 0.9 else Tone.OPEN, f"It moves {share:.0%} of its design air", told)


def _points(reader: FieldReader, curve: Sequence[tuple[Typed, Typed]]) -> list[tuple[float, float]]:
    found = []
    for k, (flow, pressure) in enumerate(curve, 1):
        pair = []
        for key, field, typed in ((f"curve_flow_{k}", "machine_flow", flow), (f"curve_pressure_{k}", "machine_pressure", pressure)):
            try:
                value, note = given(key, typed, field)
            except QuantityError as refusal:
                reader.problems.append(Problem(key, str(refusal), getattr(refusal, "offer", None)))
                continue
            if value and note:
                reader.notes[key] = note
                pair.append(value.value)
        if len(pair) == 2:
            found.append((pair[0], pair[1]))
    return found


def _line(what: str, curve: FanCurve) -> CurveLine:
    flows = np.linspace(curve.flows[0], curve.flows[-1], _POINTS)
    return CurveLine(what, tuple((float(q), curve.pressure(float(q))) for q in flows))


def _ducts(resistance: float, most: float) -> CurveLine:
    return CurveLine("ducts", tuple((float(q), float(resistance * q**2)) for q in np.linspace(0, most, _POINTS)))


def shown_point(point: tuple[float, float]) -> tuple[tuple[str, str], tuple[str, str]]:
    """A working point in both systems: flow, pressure."""
    return shown(point[0], "airflow"), shown(point[1], "pressure")
