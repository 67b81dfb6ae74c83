"""How a chain must be oiled at its speed."""

from dataclasses import dataclass

from tuyere.core.basis.figure import both
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.roller_chain import Chain, chain


@dataclass(frozen=True)
class Oiling:
    """The way of oiling, and why: by hand, in a bath, by a pumped stream."""

    way: str
    headline: str
    detail: str


def lubrication(of: Chain, chain_speed_m_per_s: float) -> Oiling | None:
    """How to oil a chain at this speed; None for a pitch that the table lacks. Source: ASME B29.1; American Chain Association (medium).

    >>> from tuyere.core.kinds.roller_chain import chain
    >>> [lubrication(chain("60"), v).way for v in (1.0, 5.0, 10.0)]
    ['by hand or drip', 'oil bath or slinger disc', 'pumped oil stream']
    """
    row = next((r for r in rows("chain_oiling") if abs(chain(r["chain"]).pitch_m / of.pitch_m - 1) < 0.005), None)
    if row is None:
        return None
    hand, bath = (to_si(float(row[k]), "velocity", "ft/min") for k in ("by_hand_to", "bath_to"))
    at = both(chain_speed_m_per_s, "velocity")
    if chain_speed_m_per_s <= hand:
        return Oiling(
            "by hand or drip",
            "Oil it by hand or by drip",
            f"At {at} a brush or 4 to 20 drops a minute on the slack side's inside will do, to {both(hand, 'velocity')} for this pitch. "
            "Guards stay on; by hand only with the machine isolated.",
        )
    if chain_speed_m_per_s <= bath:
        return Oiling(
            "oil bath or slinger disc",
            "It wants an oil bath or a slinger disc",
            f"At {at} drip is thrown off; a bath serves to {both(bath, 'velocity')} for this pitch. The lowest run just dips in.",
        )
    return Oiling(
        "pumped oil stream",
        "It wants a pumped stream of oil",
        f"At {at}, over {both(bath, 'velocity')} for this pitch, a bath churns and heats: oil is pumped onto the inside of the lower run.",
    )
