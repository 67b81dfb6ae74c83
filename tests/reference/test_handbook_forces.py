"""Our deflection forces beside a long-used maintenance table (from memory, medium confidence, no edition known).

The table gives one force a belt by section and small sheave; ours is worked out for the drive's own load. At the full
IP-20 rating ours lies below the table's "used" figure but within a factor of two of it: the table is a sanity range.
"""

import math

import pytest

from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.v_belt import ip20
from tuyere.core.mechanics import tension


@pytest.mark.parametrize(
    ("section", "diameter_in", "rpm", "used_lbf"),
    [
        ("A", 3.3, 1750, 3.7),
        ("A", 4.2, 1750, 4.5),
        ("A", 6.0, 1750, 5.4),
        ("B", 5.4, 1750, 5.3),
        ("B", 7.0, 1750, 6.3),
        ("B", 8.6, 1160, 6.3),
        ("C", 9.0, 1160, 11.5),
        ("C", 12.0, 1160, 14.1),
        ("D", 14.0, 700, 24.9),
        ("AX", 4.2, 1750, 5.0),
        ("BX", 7.0, 1750, 8.5),
        ("CX", 9.0, 1160, 14.7),
    ],
)
def test_within_a_factor_of_two_of_the_table(section: str, diameter_in: float, rpm: float, used_lbf: float) -> None:
    belt = v_belt.section(section)
    diameter, speed = to_si(diameter_in, "length", "in"), to_si(rpm, "rotation", "rpm")
    velocity = diameter * speed / 2
    power = ip20.rated_power(belt, diameter, speed, 1.5).total_w
    strand = tension.static_tension(power, velocity, 1, ip20.arc_factor(math.pi), v_belt.centrifugal_mass(belt))
    span = 0.7
    force = from_si(tension.deflection_force(strand, span, tension.deflection(span), belt.stiffness_n), "force", "lbf")
    assert used_lbf / 2 < force < used_lbf * 1.25
