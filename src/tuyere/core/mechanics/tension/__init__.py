"""How tight: static strand tension, the deflection gauge, and the take-up that changes it.

SI inside. Sources: ARPM/RMA-MPTA IP-20 and Machinery's Handbook for the static tension and the deflection
forces; the string relation is statics (a centre-loaded string: T = F t / (4 q), 16 F at q = t/64).
"""

import math

# GB/T 13575.1 prints 500 (N, kW, m/s), which is the exact half-sum of the strands; the inch form 15 = 0.9 x 16.5 rounded (exactly 14.85):
# some growth of tension under load is allowed for there. The rounded inch constant is the published one and the higher by 1 %.
INCH_FORM = 15 / 16.5
NEW_BELT_LOW, NEW_BELT_HIGH = 1.3, 1.5
DEFLECTION_RATIO = 1 / 64


def centrifugal_tension(mass_kg_per_m: float, belt_speed_m_per_s: float) -> float:
    """Tension that carries the belt round its curves, N: m v^2.

    >>> centrifugal_tension(0.2, 20.0)
    80.0
    """
    return mass_kg_per_m * belt_speed_m_per_s**2


def static_tension(
    design_power_w: float,
    belt_speed_m_per_s: float,
    belts: int,
    arc_factor: float,
    mass_kg_per_m: float,
    half_turn_ratio: float = 5.0,
    inch: bool = True,
) -> float:
    """Static tension of one strand, N, as the belt's own system publishes it.

        T_st = 15 (2.5 - K)/K (1000 Pd)/(N V) + m V^2        (inch: lbf, hp, ft/min; IP-20)
        F_0  = 500 (2.5 - K)/K Pd/(N V) + m V^2              (metric: N, kW, m/s; GB/T 13575.1, from memory, high)

    2.5 is 2 R/(R - 1) of the tension ratio at half a turn, 5 for V-belts. The metric form is the exact half-sum of the strand tensions,
    P/(2 v) in place of 500 Pd/V; the inch one 15/16.5 of it.

    >>> [round(static_tension(7500, 15, 2, 0.95, 0.19, inch=i)) for i in (True, False)]
    [228, 247]
    """
    twice = 2 * half_turn_ratio / (half_turn_ratio - 1)
    half_sum = design_power_w * (twice - arc_factor) / (2 * arc_factor * belts * belt_speed_m_per_s)
    return (INCH_FORM if inch else 1.0) * half_sum + centrifugal_tension(mass_kg_per_m, belt_speed_m_per_s)


def deflection(span_m: float) -> float:
    """Deflection to aim for at mid-span: 1/64 of the span, m (1/64 in per inch, 1.6 mm per 100 mm).

    >>> deflection(0.64)
    0.01
    """
    return span_m * DEFLECTION_RATIO


def stiffness_share(stiffness_n: float, belts: int, span_m: float, belt_length_m: float) -> float:
    """The belt-stiffness term, N: K_y, or K_y t/L for a single belt, whose whole length shares the stretch.

    >>> stiffness_share(40.0, 3, 0.6, 2.0), stiffness_share(40.0, 1, 0.6, 2.0)
    (40.0, 12.0)
    """
    return stiffness_n * span_m / belt_length_m if belts == 1 else stiffness_n


def deflection_force(tension_n: float, span_m: float, deflection_m: float, stiffness_term_n: float) -> float:
    """Force at mid-span, square to the belt, that gives `deflection_m`, N.

    The string part is 4 T q/t. The stretch that the deflection itself causes grows with q^2 and is K_y at
    q = t/64, so at 1/64 the whole is (T + K_y)/16, the IP-20 form.

    >>> round(deflection_force(160.0, 0.64, 0.01, 0.0), 6)
    10.0
    """
    stretch = stiffness_term_n * (64 * deflection_m / span_m) ** 2
    return 4 * (tension_n + stretch) * deflection_m / span_m


def tension_from_force(force_n: float, span_m: float, deflection_m: float, stiffness_term_n: float) -> float:
    """Strand tension, N, from a gauge's force: the inverse of `deflection_force`.

    >>> push = deflection_force(300.0, 0.64, 0.01, 40.0)
    >>> round(tension_from_force(push, 0.64, 0.01, 40.0), 6)
    300.0
    """
    stretch = stiffness_term_n * (64 * deflection_m / span_m) ** 2
    return force_n * span_m / (4 * deflection_m) - stretch


def centre_change_for(tension_change_n: float, belt_length_m: float, stiffness_n: float, lean_rad: float) -> float:
    """How far to move the centres apart for a change of strand tension, m.

    dC = dT L / (2 EA cos(lean)) with EA = 2048 K_y, the rigidity that the stiffness term implies. The
    rigidity is a rule-of-thumb figure: take the answer as within 40 %.

    >>> round(1000 * centre_change_for(100.0, 2.0, 40.0, 0.2), 2)
    1.25
    """
    return tension_change_n * belt_length_m / (2 * 2048 * stiffness_n * math.cos(lean_rad))
