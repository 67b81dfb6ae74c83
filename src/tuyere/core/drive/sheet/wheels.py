"""Sheet steps 1 and 2: the wheels, ratio, speeds, slip; centres, spans and wraps."""

from tuyere.core.basis.figure import figure, given_figure
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.uncertainty import wrapped
from tuyere.core.basis.verdict import Tone
from tuyere.core.drive.sheet.slip import read_slip
from tuyere.core.kinds.fitted import rolls_by
from tuyere.core.kinds.spec import DriveSpec
from tuyere.core.mechanics import speed

GEOMETRY = "plane geometry and kinematics"

_driven_speed = wrapped(speed.driven_speed)
_belt_speed = wrapped(speed.belt_speed)


def diameters(spec: DriveSpec, page: Page) -> None:
    """Both wheels, as their own kind has them."""
    if spec.fitted:
        spec.fitted.wheels(page)


def centres(spec: DriveSpec, page: Page) -> None:
    """How far apart they stand, by the tape or by what runs on them."""
    if spec.fitted and page.has("driver_datum", "driven_datum"):
        spec.fitted.centres(spec.slide, page)


def ratio_and_speeds(spec: DriveSpec, page: Page) -> None:
    """Ratio, driven speed, belt speed and rim speeds."""
    if not spec.fitted or not page.has("driver_datum", "driven_datum"):
        return
    found = spec.fitted.ratio(page)
    if found is None:
        return
    first, second = (rolls_by(page, role) for role in ("driver", "driven"))
    ratio = found.value
    page.put(
        figure("ratio", "speed ratio", "R", "number", ratio, page.lines(second, first), found.formula, GEOMETRY, note=found.note),
        ratio,
    )
    if not spec.driver_speed:
        return
    driver_value = spec.driver_speed.u
    driver = page.put(
        given_figure(
            "driver_speed", "driver speed", "n_1", "rotation", spec.driver_speed.value, spec.driver_speed.std, spec.driver_speed.origin
        ),
        driver_value,
    )
    driven = _driven_speed(driver_value, ratio)
    page.put(
        figure(
            "driven_speed",
            "driven speed",
            "n_2",
            "rotation",
            driven,
            [driver.line(), *page.lines("ratio")],
            "n_2 = n_1 / R",
            GEOMETRY,
            limits=spec.family.slip.said,
        ),
        driven,
    )
    rolls, formula = spec.fitted.pays_out(page)
    velocity = _belt_speed(rolls, driver_value)
    fastest, source = spec.fitted.loop.fastest if spec.fitted.loop else (None, "")
    page.put(
        figure(
            "belt_speed",
            f"{spec.family.runs} speed",
            "V",
            "velocity",
            velocity,
            page.lines(first, "driver_speed"),
            formula,
            GEOMETRY,
            limits=source,
            limit_si=fastest,
        ),
        velocity,
    )
    _speed_limits(spec, page, driven.n)


def _speed_limits(spec: DriveSpec, page: Page, driven_speed: float) -> None:
    assert spec.driver_speed and spec.fitted
    for role, rotation in (("driver", spec.driver_speed.value), ("driven", driven_speed)):
        rim = _belt_speed(page.values[f"{role}_outside"], rotation)
        page.put(
            figure(
                f"{role}_rim_speed",
                f"{role} rim speed",
                "v_r",
                "velocity",
                rim,
                page.lines(f"{role}_outside", "driver_speed"),
                "v_r = π d_o n",
                GEOMETRY,
                limits=f"Cast iron to {speed.CAST_IRON_RIM_LIMIT_BOTH} unless another limit is cast on the wheel.",
                limit_si=speed.CAST_IRON_RIM_LIMIT_M_PER_S,
            ),
            rim,
        )
        if rim.n > speed.CAST_IRON_RIM_LIMIT_M_PER_S:
            most = show(speed.speed_at_rim_limit(page.values[f"{role}_outside"].n), "rotation", System.US)
            page.flag(
                "rim-speed",
                f"{role}_diameter",
                f"The {role} rim runs faster than {speed.CAST_IRON_RIM_LIMIT_BOTH}, the limit for cast iron: stop at {most}, or fit a "
                "wheel marked for the speed.",
            )
    fastest, source = spec.fitted.loop.fastest if spec.fitted.loop else (None, "")
    if fastest and page.values["belt_speed"].n > fastest:
        most = f"{show(fastest, 'velocity', System.US)} ({show(fastest, 'velocity', System.SI)})"
        page.flag("belt-speed", "driver_speed", f"The belt runs faster than {most}: use smaller wheels or a slower motor. {source}.")


def tachometer(spec: DriveSpec, page: Page) -> None:
    """Slip from measured speeds, and the driven speed against the design point."""
    if not page.has("ratio", "driven_speed") or not spec.driver_speed:
        return
    if not spec.tach_driven:
        _against_design(spec, page)
        return
    first = spec.tach_driver or spec.driver_speed
    page.put(
        given_figure(
            "tach_driven",
            "driven speed measured",
            "n_2m",
            "rotation",
            spec.tach_driven.value,
            spec.tach_driven.std,
            spec.tach_driven.origin,
        )
    )
    driver = page.put(
        given_figure(
            "tach_driver",
            "driver speed" + (" measured" if spec.tach_driver else " by its plate"),
            "n_1m",
            "rotation",
            first.value,
            first.std,
            first.origin,
        )
    )
    read_slip(
        first.u,
        spec.tach_driven.u,
        page.values["ratio"],
        [driver.line(), *page.lines("tach_driven", "ratio")],
        spec.family.slip,
        spec.family.toothed,
        bool(spec.tach_driver),
        page,
    )
    _against_design(spec, page)


def _against_design(spec: DriveSpec, page: Page) -> None:
    if not spec.design_speed:
        return
    page.put(
        given_figure(
            "design_speed",
            "driven speed it should have",
            "n_d",
            "rotation",
            spec.design_speed.value,
            spec.design_speed.std,
            spec.design_speed.origin,
        )
    )
    actual = spec.tach_driven.u if spec.tach_driven else page.values["driven_speed"]
    key = "tach_driven" if spec.tach_driven else "driven_speed"
    off = actual / spec.design_speed.value - 1
    found = page.put(
        figure("off_design", "off the design speed", "Δ", "share", off, page.lines(key, "design_speed"), "Δ = n_2 / n_d - 1", "arithmetic"),
        off,
    )
    word = "above" if off.n > 0 else "below"
    size = found.us.lstrip("-")
    if abs(off.n) <= 0.03:
        if spec.tach_driven:
            page.say("design", Tone.GOOD, f"At its design speed (within {size})", "")
        else:
            page.say(
                "design",
                Tone.OPEN,
                f"By its wheels at its design speed (within {size})",
                "Read the driven shaft to know: slip is not in this.",
            )
    else:
        how = "measured" if spec.tach_driven else "by the diameters"
        page.say(
            "design",
            Tone.WATCH,
            f"{size} {word} its design speed",
            f"It should turn {page.figures['design_speed'].us}; {how} it turns {page.figures[key].us}. On a fan or centrifugal pump power "
            "goes with the cube of speed.",
        )
