"""Changing one kind of drive for another: what it saves in a year, and what it risks."""

from dataclasses import dataclass

from tuyere.core.basis.origin import Confidence
from tuyere.core.kinds.traits import traits

HOURS_A_YEAR_MOST = 8760.0


@dataclass(frozen=True)
class Saving:
    """Power drawn before and after for the same shaft power (W), energy (J) and money saved a year, and how sure the efficiencies are."""

    before_w: float
    after_w: float
    energy_j: float
    money: float | None
    before_efficiency: tuple[float, float]
    after_efficiency: tuple[float, float]
    confidence: Confidence
    source: str


def saving(
    power_w: float, load: float, hours_a_year: float, price_per_kwh: float | None, before: str, after: str, neglected: bool
) -> Saving:
    """What the new drive saves. power_w: at the driven shaft at full load; load: the share of it that is used; neglected: as kept now.

    Before counts as neglected or well kept, after as well kept. Source: public efficiency figures (drive_traits.csv).

    >>> s = saving(30_000, 0.8, 6000, 0.15, "V-belt, wrapped", "synchronous", False)
    >>> round(s.before_w - s.after_w), round(s.money)
    (773, 696)
    """
    old, new = traits()[before], traits()[after]
    used = power_w * load
    was = used / (old.neglected if neglected else old.kept)
    is_ = used / new.kept
    energy = (was - is_) * hours_a_year * 3600
    money = energy / 3.6e6 * price_per_kwh if price_per_kwh is not None else None
    sure = Confidence.LOW if Confidence.LOW in (old.confidence, new.confidence) else Confidence.MEDIUM
    return Saving(was, is_, energy, money, (old.neglected, old.kept), (new.neglected, new.kept), sure, f"{old.source}; {new.source}")


_BELT = ("V-belt, wrapped", "V-belt, cogged", "V-belt, joined", "V-flat", "ribbed", "flat belt, leather", "flat belt, synthetic")
_IN_LINE = ("gears, helical or spur", "gears, worm", "direct coupling")  # no belt and no chain: only ever what stands now


def changes(before: str, after: str, shock: bool, speed_ratio: float) -> list[tuple[str, str]]:
    """(what changes, what it means), what risks something first. speed_ratio: new driven speed over the old one; 1 if it stays."""
    found: list[tuple[str, str]] = []
    old, new = traits()[before], traits()[after]
    if old.fuse and not new.fuse:
        found.append(
            (
                "Slip is no longer a fuse",
                "A belt that slipped when the machine jammed now passes the whole shock on: to teeth, keys, shafts. Fit a shear pin or a "
                "torque limiter where it can jam.",
            )
        )
    if new.fuse and not old.fuse:
        found.append(
            (
                "It can slip now",
                "Timing between the shafts is lost, and a jam shows as squeal and heat instead of a broken chain. If a shear pin guarded "
                "the old drive, keep one.",
            )
        )
    if new.shock < old.shock and shock:
        found.append(
            (
                "It stands shock less well",
                "This machine is of a class that jolts: size on its service factor, and look for broken teeth and links at the first "
                "inspections.",
            )
        )
    if new.out_of_line < old.out_of_line:
        found.append(
            ("It wants truer alignment", "A toothed belt runs off or wears an edge within a quarter of a degree; V-belts forgave more.")
        )
    if new.no_oil > old.no_oil:
        found.append(
            (
                "No more oil",
                "No oil bath, drip or grease to look after, and nothing on the floor. Take the old oil off the wheels' places: belts do "
                "not stand it.",
            )
        )
    if new.no_oil < old.no_oil:
        found.append(("It must be oiled", "By hand, drip, bath or stream, by its speed; dry, it wears out in a fraction of its life."))
    if new.dirt < old.dirt:
        found.append(
            (
                "It stands dirt less well",
                "Stones and straw between belt and teeth, or grit in the joints, shorten its life: guard it closer.",
            )
        )
    if new.quiet < old.quiet:
        found.append(("It will be louder", "Teeth whine and rattle with speed and width."))
    if before in _IN_LINE:
        found.append(
            (
                "A shaft that was turned is now pulled",
                "Gears in a case and couplings hang no belt on a shaft's end: see whether the motor's and the machine's bearings are "
                "made for an overhung pull, and whether the shaft's end is long enough.",
            )
        )
        found.append(
            (
                "The speed is yours to choose",
                "Another wheel changes it; and the driven shaft turns the way of the driver, which one pair of gears did not."
                if before.startswith("gears")
                else "Another wheel changes it; the two shafts no longer share one line.",
            )
        )
    if after in _BELT and before not in _BELT:
        found.append(
            (
                "It pulls its shafts harder",
                "A belt grips by tension: the slack side pulls as well. Look at the bearings and the overhang below.",
            )
        )
    if abs(speed_ratio - 1) > 0.02:
        way = "falls" if speed_ratio > 1 else "rises"
        found.append(
            (
                f"The driven shaft's torque {way}",
                f"At {speed_ratio:.0%} of the old speed the same power turns it with {1 / speed_ratio:.0%} of the torque. Fans and pumps "
                "take far more power faster: the cube of the speed.",
            )
        )
    return found
