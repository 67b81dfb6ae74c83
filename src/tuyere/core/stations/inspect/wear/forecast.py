"""When a part's wear comes to its limit: a curve fitted to its own readings, with a band.

Model, in shares of the limit: w(h) = b + (W - b) (h / H)^q. H: hours at the last reading; W: the wear there; b: bedding-in, soon done; q:
how it bends (1 straight, over 1 faster and faster). Readings scatter about it by s, and now and then one is a blunder. Prior and
likelihood stand on a grid; the band is the posterior's 5 to 95 % (6.5 to 93.5 % of few readings). While readings are few the prior of the
bend, and of the life where there is hardly any reading, decides. What is to come may still speed up: a share of the hours that are left
is taken off by chance. Every width is a judgement, measured on simulated histories (bench/wear.py).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]
Bend = Literal["chain", "groove", "tension", ""]

# How it bends by kind: middle and spread of q. Tension settles fast at first.
BENDS: dict[Bend, tuple[float, float]] = {"chain": (1.0, 0.28), "groove": (1.0, 0.28), "tension": (0.6, 0.25), "": (1.0, 0.3)}
BEDS_IN = 0.06  # of the limit, the scale of bedding-in
SCATTER = (0.004, 0.008, 0.015, 0.03, 0.06, 0.12)  # of the limit, one standard deviation
USUAL_SCATTER = 0.02
BLUNDERS = 0.04  # of readings
WIDE = 8.0  # times the scatter, of a blunder
SPEEDS_UP = (
    (-0.15, 0.1),
    (0.0, 0.62),
    (0.1, 0.16),
    (0.25, 0.08),
    (0.45, 0.04),
)  # share of the hours left that may yet be lost (or won), and how likely
OPEN = 25.0  # times the hours run so far: further than that nobody can say
EDGE, EDGE_OF_FEW, MANY = 0.05, 0.065, 12  # below and above the band; of few readings, whose prior is wide enough: by bench/wear.py


@dataclass(frozen=True)
class Forecast:
    """Hours on the same meter at which the limit comes: low, middle, high (None: open); or why it cannot be said."""

    low: float | None = None
    middle: float | None = None
    high: float | None = None
    refused: str = ""


def forecast(
    hours: Sequence[float],
    values: Sequence[float | None],
    limit: float,
    kind: Bend = "",
    start_hours: float = 0.0,
    start_value: float = 0.0,
) -> Forecast:
    """Of readings at hours on the meter (None: taken, not readable), toward `limit` in the values' own unit."""
    if limit == start_value:
        return Forecast(refused="The limit is where it started: give the wear at which it is renewed.")
    read = sorted((h - start_hours, (v - start_value) / (limit - start_value)) for h, v in zip(hours, values, strict=True) if v is not None)
    read = [r for r in read if r[0] > 0]
    if not read:
        return Forecast(refused="There is no reading yet: measure it once, and note the hours.")
    at, worn = np.array([r[0] for r in read]), np.array([r[1] for r in read])
    last = float(at[-1])
    rounding = _step(worn)
    floor = max(rounding / math.sqrt(12), 1e-4)
    if float(np.median(worn[at >= 0.5 * last])) <= max(0.01, 1.5 * floor) and len(read) < 40:
        return Forecast(refused="It has not worn enough to say when: read it again after more hours.")
    q_mid, q_std = BENDS[kind]
    q = np.linspace(max(0.25, q_mid - 3 * q_std), q_mid + 4.5 * q_std, 45)
    b = np.array([0.0, 0.01, 0.025, 0.05, 0.08, 0.13, 0.2])
    s = np.hypot(np.array(SCATTER), floor)
    end = _middle_of_end(at, worn)
    spread = 4.5 * max(floor, float(np.median(np.abs(worn - end * at / last))), 0.012) + 0.12 * abs(end)
    w = np.linspace(max(1e-3, end - spread), end + spread, 61)
    wm, qm, bm = (a.ravel() for a in np.meshgrid(w, q, b, indexing="ij"))
    keep = wm > bm * 1.02 + 1e-4
    wm, qm, bm = wm[keep], qm[keep], bm[keep]
    curve = bm[:, None] + (wm - bm)[:, None] * (at / last)[None, :] ** qm[:, None]
    prior = -0.5 * ((qm - q_mid) / q_std) ** 2 - bm / BEDS_IN
    if len(read) == 1:  # nothing of its own says how much it scatters: what is usual
        s = np.hypot(np.array([0.008, 0.015, 0.03]), floor)
    log = np.full(len(wm), -np.inf)
    for one in s:
        off = (worn[None, :] - curve) / one
        usual = np.exp(-0.5 * off**2)
        blunder = np.exp(-0.5 * (off / WIDE) ** 2) / WIDE
        fit = np.log((1 - BLUNDERS) * usual + BLUNDERS * blunder + 1e-300).sum(axis=1) - len(read) * math.log(one)
        weight = -0.5 * (math.log(one / USUAL_SCATTER) / 0.8) ** 2
        log = np.logaddexp(log, fit + weight)
    share = np.exp(log + prior - (log + prior).max())
    share /= share.sum()
    if float(share[wm - bm < 0.01].sum()) > 0.2:
        return Forecast(refused="The readings do not rise clearly: read it again after more hours, and look at the odd ones.")
    ratio = np.maximum(1.0 - bm, 1e-6) / (wm - bm)
    ends = last * ratio ** (1 / qm)
    every: list[Vector] = []
    weights: list[Vector] = []
    for lost, likely in SPEEDS_UP:
        every.append(np.where(ends > last, last + (ends - last) * (1 - lost), ends))
        weights.append(share * likely)
    edge = EDGE if len(read) >= MANY else EDGE_OF_FEW
    low, middle, high = _quantiles(np.concatenate(every), np.concatenate(weights), edge)
    far = OPEN * last
    if middle > far:
        return (
            Forecast(start_hours + low, start_hours + middle, None) if low < far else Forecast(refused="It wears too little to say when.")
        )
    return Forecast(start_hours + low, start_hours + middle, start_hours + high if high <= far else None)


def _step(worn: Vector) -> float:
    """The step that readings are rounded to; nought where they are not, or there are too few to tell."""
    steps = np.unique(np.round(np.abs(np.diff(np.sort(worn))), 9))
    steps = steps[steps > 1e-6]
    if len(worn) < 4 or not len(steps):
        return 0.0
    least = float(steps[0])
    return least if np.all(np.abs(steps / least - np.round(steps / least)) < 0.02) else 0.0


def _middle_of_end(at: Vector, worn: Vector) -> float:
    """About where the wear stands at the last reading: a straight line from the origin through the later half, by its middle slope."""
    late = at >= 0.5 * at[-1]
    return max(0.01, float(np.median(worn[late] / at[late])) * float(at[-1]))


def _quantiles(values: Vector, weights: Vector, edge: float) -> tuple[float, float, float]:
    order = np.argsort(values)
    below = np.cumsum(weights[order]) - 0.5 * weights[order]
    low, middle, high = np.interp([edge, 0.5, 1 - edge], below / weights.sum(), values[order])
    return float(low), float(middle), float(high)
