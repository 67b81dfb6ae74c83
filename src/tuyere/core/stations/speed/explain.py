"""What a tachometer reading that disagrees with the diameters means, what each explanation predicts, and what the next reading teaches.

A loss seen on the tachometer leaves with the wheel that caused it, or stays with what is not changed. Which, the tachometer alone
cannot say; turning the drive by hand can, since a belt under no load does not slip. Kinematics; the limits of slip are common practice.
"""

import math
from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.figure import shown
from tuyere.core.basis.uncertainty import UFloat, exact, uncertain
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.about import About

# Past this a belt cannot go on slipping for long: it glazes, smells and burns. Common practice, no source; low.
_GROSS = 0.08
_DIFFERENT = 0.03  # two predictions further apart than this are worth telling apart before the wheel is bought
Change = Literal["driver", "driven"]


@dataclass(frozen=True)
class Explanation:
    """One way to read the loss: what it says, what each shaft would turn by hand, how well it holds, and what it predicts for the change.

    `by_hand`: turns of the driven shaft for `hand_turns` of the driver. `predicted`: driven speed after the change (rad/s), None without
    one.
    """

    key: str
    title: str
    reason: str
    plausible: str
    by_hand: float
    predicted: UFloat | None


@dataclass(frozen=True)
class Explained:
    """The loss (a share), the ratios by diameters and by the tachometer, the explanations, how many turns by hand tell them apart, and what
    to say.
    """

    loss: UFloat
    by_diameters: UFloat
    by_tachometer: UFloat
    hand_turns: int
    explanations: tuple[Explanation, ...]
    verdicts: tuple[Verdict, ...]


def explain(
    driver_speed: UFloat,
    driven_speed: UFloat,
    ratio: UFloat,
    family: About,
    *,
    change: Change = "driver",
    new_over_old: UFloat | None = None,
    small: Change = "driver",
    below_least: bool = False,
) -> Explained:
    """Read the loss between diameters and tachometer both ways.

    driver_speed, driven_speed: measured, rad/s. ratio: D/d by the diameters. new_over_old: the changed wheel's new diameter over its old
    one (by the same kind of diameter); `change`: which wheel. small: the smaller wheel; below_least: it is under its section's least.
    """
    true_ratio = driver_speed / driven_speed
    loss = 1 - ratio / true_ratio
    usual = family.slip
    factor = None if new_over_old is None else (new_over_old if change == "driver" else 1 / new_over_old)
    normal = uncertain(sum(usual.usual) / 2, (usual.usual[1] - usual.usual[0]) / 4, "usual slip") if usual.usual[1] else exact(0.0)
    stays = None if factor is None else driven_speed * factor
    leaves = None if factor is None else driver_speed / ratio * factor * (1 - normal)
    hand = _turns_by_hand(ratio.n, true_ratio.n)
    found = [
        Explanation(
            "slip",
            "The belt slips" if not family.toothed else "Teeth jump",
            _why_slip(loss.n, small, below_least),
            _slip_holds(loss.n, family),
            hand / ratio.n,
            leaves if change == small else stays,
        ),
        Explanation(
            "diameter",
            "A diameter is not what was taken for it",
            _why_diameter(loss.n, ratio.n),
            _diameter_holds(loss.n),
            hand / true_ratio.n,
            stays,
        ),
    ]
    return Explained(loss, ratio, true_ratio, hand, tuple(found), tuple(_say(found, loss, hand, change, small)))


def _turns_by_hand(by_diameters: float, by_tachometer: float) -> int:
    """Turns of the driver after which the two answers lie half a turn of the driven shaft apart; at least 5, at most 60."""
    apart = abs(1 / by_diameters - 1 / by_tachometer)
    return max(5, min(60, math.ceil(0.5 / apart))) if apart > 1e-9 else 60


def _why_slip(loss: float, small: str, below_least: bool) -> str:
    if loss < 0:
        return "A slipping belt only ever loses: this cannot be."
    least = " It is under the least for its section, so it holds little." if below_least else ""
    return f"More is asked than the belt holds on the small wheel, the {small}'s.{least} A larger wheel there need not slip the same."


def _why_diameter(loss: float, ratio: float) -> str:
    way = "smaller" if loss > 0 else "larger"
    return f"The driver's effective diameter is {abs(loss):.1%} {way} than taken, or the driven one's as much {'larger' if loss > 0 else 'smaller'}: rim for line, a worn groove, a belt that rides high or low, a tape misread."


def _slip_holds(loss: float, family: About) -> str:
    if loss < 0 or family.toothed:
        return "cannot be"
    usual = family.slip
    if loss <= usual.usual[1]:
        return "as usual"
    return (
        "likely" if loss <= usual.fault else "a fault, but can be" if loss <= _GROSS else "for minutes only: it would glaze, smell and burn"
    )


def _diameter_holds(loss: float) -> str:
    return "likely" if abs(loss) > _GROSS or loss < 0 else "can be"


def _say(found: list[Explanation], loss: UFloat, hand: int, change: str, small: str) -> list[Verdict]:
    said = []
    slip, diameter = found
    if abs(loss.n) <= max(0.02, 2 * loss.s):
        said.append(
            Verdict(
                "explain",
                Tone.GOOD,
                "Diameters and tachometer agree",
                "Within usual slip and the doubt of the readings: a wheel chosen by either comes out right.",
            )
        )
        return said
    if slip.predicted is not None and diameter.predicted is not None:
        a, b = slip.predicted, diameter.predicted
        if abs(a.n / b.n - 1) > _DIFFERENT:
            both = [shown(x.n, "rotation")[0] for x in (a, b)]
            said.append(
                Verdict(
                    "explain",
                    Tone.WATCH,
                    f"The two explanations predict {both[0]} and {both[1]}",
                    f"If the belt slipped on the old wheel, the new one gives {both[0]}; if a diameter was wrong, {both[1]}. Find out "
                    f"which before it is bought or turned: {_tell(hand, slip, diameter)}",
                )
            )
            return said
    said.append(
        Verdict(
            "explain",
            Tone.OPEN,
            "Slip, or a wrong diameter?",
            f"{_tell(hand, slip, diameter)} Read both shafts again with the load off, too: slip goes with the load, a diameter stays.",
        )
    )
    return said


def _tell(hand: int, slip: Explanation, diameter: Explanation) -> str:
    return (
        f"isolated, mark both wheels and turn the driver {hand} turns by hand. The driven wheel makes {eighths(slip.by_hand)} turns if it "
        "was slip, "
        f"{eighths(diameter.by_hand)} if a diameter is wrong."
    )


def eighths(turns: float) -> str:
    """Turns to the nearest eighth, as marks are read.

    >>> eighths(2.39), eighths(1.0)
    ('2 3/8', '1')
    """
    whole, part = divmod(round(turns * 8), 8)
    fractions = ("", "1/8", "1/4", "3/8", "1/2", "5/8", "3/4", "7/8")
    return " ".join(t for t in (str(whole) if whole or not part else "", fractions[part]) if t)


@dataclass(frozen=True)
class Learned:
    """After a change: the ratio by the tachometer, how it compares with the diameters, and the diameter that gives the wanted speed.

    `factor`: measured speed over that by the diameters. `effective_change`: by how much the changed wheel's effective diameter must
    change for the target (a share; below 0: smaller). `over_rim`: the same over the rim, at the least and at the most.
    """

    by_tachometer: UFloat
    factor: UFloat
    effective_change: UFloat | None
    over_rim: tuple[float, float] | None
    verdicts: tuple[Verdict, ...]


def learn(
    driver_speed: UFloat,
    driven_speed: UFloat,
    ratio: UFloat,
    target_speed: float | None,
    change: Change = "driver",
    before: Explained | None = None,
) -> Learned:
    """What the reading after a change teaches. ratio: D/d of the wheels as they are now, by their diameters.

    A wheel whose effective diameter is off by a factor is corrected by the same share over its rim; one that is off by a fixed amount
    (the belt rides high or low) by less or more. Both bounds are given: algebra.

    >>> from tuyere.core.basis.uncertainty import exact
    >>> found = learn(exact(1425.0), exact(260.0), exact(1425 / 220), 240.0)
    >>> round(found.effective_change.n, 4)
    -0.0769
    """
    true_ratio = driver_speed / driven_speed
    factor = ratio / true_ratio
    said = _supports(driven_speed, before) if before else []
    if target_speed is None:
        return Learned(true_ratio, factor, None, None, tuple(said))
    wanted = target_speed / driven_speed if change == "driver" else driven_speed / target_speed
    own = factor.n if change == "driver" else 1 / factor.n
    # d_eff = d·k: scaled by w it is d·k·w; over the rim w·d when k is a factor, d·(1 - k(1 - w)) when k came of a fixed offset.
    rim = sorted((wanted.n - 1, -own * (1 - wanted.n)))
    said.append(_order(wanted - 1, (rim[0], rim[1]), change, target_speed))
    return Learned(true_ratio, factor, wanted - 1, (rim[0], rim[1]), tuple(said))


def _supports(driven_speed: UFloat, before: Explained) -> list[Verdict]:
    """Which of the explanations the new reading bears out."""
    fits = []
    for e in before.explanations:
        if e.predicted is None:
            continue
        gap = driven_speed - e.predicted
        if abs(gap.n) <= max(2 * gap.s, 0.015 * e.predicted.n):
            fits.append(e)
    read = shown(driven_speed.n, "rotation")[0]
    if len(fits) == 1:
        return [Verdict("learned", Tone.GOOD, f"{read}: {fits[0].title.lower()}, as that predicted", fits[0].reason)]
    if fits:
        return [Verdict("learned", Tone.OPEN, f"{read} fits both explanations", "They predicted nearly the same.")]
    if any(e.predicted is not None for e in before.explanations):
        return [
            Verdict(
                "learned",
                Tone.WATCH,
                f"{read}: neither explanation alone",
                "The diameter taken for the new wheel, or where the belt rides in it, is off as well. From here on the tachometer's "
                "ratio counts, not the diameters'.",
            )
        ]
    return []


def _order(change_of: UFloat, rim: tuple[float, float], change: str, target: float) -> Verdict:
    way = "smaller" if change_of.n < 0 else "larger"
    size, doubt = abs(change_of.n), 2 * change_of.s
    told = shown(target, "rotation")[0]
    if size <= max(doubt, 0.002):
        return Verdict("order", Tone.GOOD, f"It turns {told} within the reading's doubt", "Leave the wheels as they are.")
    low, high = sorted(abs(r) for r in rim)
    between = f"{low:.1%}" if high - low < 0.001 else f"{low:.1%} to {high:.1%}"
    careful = " Turning down: take the lesser off first, fit it, read again." if change_of.n < 0 else ""
    return Verdict(
        "order",
        Tone.OPEN,
        f"For {told} the {change}'s effective diameter must be {size:.1%} {way}",
        f"± {doubt:.1%} by the readings. Over the rim that is {between} {way}: the less if the whole wheel is out by a share, the more if "
        f"the belt rides off its line.{careful}",
    )
