"""How often the truth lies in the band that the Align station states, method by method, and how often the words bring a machine true.

    python -m bench.align_coverage

The machine to practise on (exact rotations, noisy tools) is read and moved. Prints shares within one and two standard uncertainties (68 and
95 % where the bands are honest), and shares of machines true after one, two and three rounds, from small and from large errors.
"""

import math

from tuyere.core.stations.align.methods import METHODS
from tuyere.core.stations.align.moves import Feet, moves_for
from tuyere.core.stations.align.readings import Errors, WheelPair, solve
from tuyere.core.stations.align.shims import pack, stock_of
from tuyere.core.stations.align.tolerance import tolerance
from tuyere.instruments.rig import Made, Rig

FEET = Feet(0.12, 0.18, 0.2, 0.12)
POSES = 1500
SLOPES = (0.0, math.pi / 4, math.pi / 2)
BY_KEY = {m.key: m for m in METHODS}


def _pair(n: int) -> WheelPair:
    return WheelPair(SLOPES[n % 3], 0.65, 0.13, 0.08, 0.02, 0.02 + (n % 5) * 0.001)


def _read(rig: Rig, methods: tuple[str, ...], nth: int = 0) -> Errors:
    shown = {m: rig.read(m, nth) for m in methods}
    return solve([BY_KEY[m].equations(rig.pair, of) for m, of in shown.items()])


def coverage(methods: tuple[str, ...], degrees: float) -> dict[str, tuple[float, float]]:
    """Share of truths within one and two standard uncertainties, by error."""
    inside: dict[str, list[tuple[bool, bool]]] = {}
    for n in range(POSES):
        rig = Rig.hidden(_pair(n), FEET, n, degrees)
        errors, truth = _read(rig, methods), rig.truth
        for key, unit in (("angle", "rad"), ("twist", "rad"), ("offset", "m")):
            value, u = getattr(errors, f"{key}_{unit}"), getattr(errors, f"{key}_u_{unit}")
            if value is not None and u:
                off = abs(value - getattr(truth, f"{key}_{unit}")) / u
                inside.setdefault(key, []).append((off <= 1, off <= 2))
    return {k: (sum(a for a, _ in v) / len(v), sum(b for _, b in v) / len(v)) for k, v in inside.items()}


def brought_true(methods: tuple[str, ...], degrees: float) -> list[float]:
    """Share of machines within tolerance after one, two and three rounds of readings and moves."""
    allowed, stock, true = tolerance("v-belt", 0.65), stock_of("metric"), [0, 0, 0]
    for n in range(POSES):
        rig = Rig.hidden(_pair(n), FEET, n, degrees)
        for turn in range(3):
            moves = moves_for(_read(rig, methods, turn), FEET, rig.pair.slope_rad, lambda lift: pack(lift, stock).thick_m)
            assert moves.shims_m and moves.jack_back_m is not None and moves.slide_m is not None
            rig.make(Made(moves.shims_m, moves.jack_back_m, moves.slide_m))
            truth = rig.truth
            true[turn] += max(abs(truth.angle_rad), abs(truth.twist_rad)) <= allowed.angle_rad and abs(truth.offset_m) <= allowed.offset_m
    return [t / POSES for t in true]


def main() -> None:
    """Run it."""
    for methods in (
        ("straightedge",),
        ("string",),
        ("clock",),
        ("one_head",),
        ("two_heads",),
        ("tape",),
        ("straightedge", "clock", "level"),
    ):
        found = coverage(methods, 1.2)
        print(f"{' + '.join(methods):32}", "  ".join(f"{k} {one:.0%} {two:.0%}" for k, (one, two) in found.items()))
    for degrees in (1.2, 5.0):
        for methods in (("straightedge", "clock"), ("one_head",), ("two_heads", "level")):
            shares = brought_true(methods, degrees)
            print(f"from {degrees}°, {' + '.join(methods):24}", "  ".join(f"{s:.1%}" for s in shares))


if __name__ == "__main__":
    main()
