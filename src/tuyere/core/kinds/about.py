"""What is known of a kind of drive as such: what it is called, what it runs on, how it slips and loads its shafts."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Slip:
    """How much a drive of a kind loses, as shares: the usual range, from where on it is a fault, and in words.

    Common practice, no source.
    """

    usual: tuple[float, float]
    fault: float
    said: str


NO_SLIP = Slip((0.0, 0.0), 0.005, "Teeth do not slip")


class About:
    """A kind of drive, by its name and its habits.

    `key`: as kept. `label`: as said. `group`: which part of the knowledge of wear and failure holds for it. `runs`: what goes round.
    `part`: what it runs on, by which a survey's form for it goes. `overhung_factor`: how many times the effective pull it pulls its
    shaft, when its tensions are not known (chain and V high, others medium, flat 2 to 3). `counts_idler`: whether idlers and hours count
    in its service factor. `forms`: rarer forms of it that are chosen by name. `turns_open`: whether its wheels are made adjustable, and
    turned out of a blank.
    """

    key: str
    label: str
    group: str
    runs: str = "belt"
    part: str
    toothed: bool = False
    slip: Slip
    overhung_factor: float
    counts_idler: bool = True
    forms: tuple[str, ...] = ()
    turns_open: bool = False

    @property
    def wheel(self) -> str:
        """What it runs on, one of them, in a word."""
        return {"sheaves": "sheave", "teeth": "sprocket" if self.runs == "chain" else "pulley"}.get(self.part, "pulley")

    def speed_up(self, ratio_up: float) -> tuple[float, float, str]:
        """What a driven shaft that turns `ratio_up` times as fast as the driver multiplies the service factor by, what it adds, and in words."""
        return 1.0, 0.0, ""


class AboutTeeth(About):
    """What drives by teeth have in common."""

    part = "teeth"
    toothed = True
    slip = NO_SLIP
