"""The kinds of quantity there are, and the units of each."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Unit:
    """One unit a person may write. `pint_unit` names it in pint's vocabulary."""

    symbol: str
    pint_unit: str
    aliases: tuple[str, ...] = ()


@dataclass(frozen=True)
class QuantityKind:
    """A kind of quantity: its SI unit, the units people write it in, and the usual one of each system."""

    name: str
    noun: str
    si_unit: str
    us_symbol: str
    si_symbol: str
    units: tuple[Unit, ...]
    us_decimals: int = 1
    si_decimals: int = 1


_LENGTH_UNITS = (
    Unit("in", "inch", ('"', "″", "”", "“", "''", "inch", "inches", "ins", "in.")),
    Unit("ft", "foot", ("'", "′", "’", "foot", "feet", "ft.")),
    Unit("mm", "millimeter", ("millimetre", "millimetres", "millimeter", "millimeters")),
    Unit("cm", "centimeter", ("centimetre", "centimetres")),
    Unit("m", "meter", ("metre", "metres", "meter", "meters")),
)


KINDS: dict[str, QuantityKind] = {
    k.name: k
    for k in (
        QuantityKind("length", "a length", "meter", "in", "mm", _LENGTH_UNITS, 2, 1),
        QuantityKind(
            "power",
            "a power",
            "watt",
            "hp",
            "kW",
            (
                Unit("hp", "horsepower", ("bhp", "horsepower")),
                Unit("kW", "kilowatt", ("kilowatt", "kilowatts")),
                Unit("W", "watt", ("watt", "watts")),
                Unit("PS", "metric_horsepower", ("ps", "cv")),
            ),
            2,
            2,
        ),
        QuantityKind(
            "rotation",
            "a speed of rotation",
            "radian/second",
            "rpm",
            "rpm",
            (
                Unit("rpm", "revolution/minute", ("r/min", "rev/min", "1/min", "min-1", "revs")),
                Unit("rad/s", "radian/second"),
            ),
            0,
            0,
        ),
        QuantityKind(
            "force",
            "a force",
            "newton",
            "lbf",
            "N",
            (
                Unit("lbf", "pound_force", ("lb", "lbs", "pound", "pounds", "#")),
                Unit("N", "newton", ("newton", "newtons")),
                Unit("kN", "kilonewton"),
                Unit("kgf", "kilogram_force", ("kg", "kp")),
                Unit("ozf", "ounce_force", ("oz",)),
            ),
            1,
            0,
        ),
        QuantityKind(
            "pressure",
            "a pressure",
            "pascal",
            "inH2O",
            "Pa",
            (
                Unit("inH2O", "inch_H2O", ("in wc", "in wg", "inwc", "inwg", "in h2o", "in w.c.")),
                Unit("psi", "psi"),
                Unit("Pa", "pascal"),
                Unit("kPa", "kilopascal"),
                Unit("bar", "bar"),
                Unit("mbar", "millibar"),
            ),
            2,
            0,
        ),
        QuantityKind(
            "stress",
            "a stress",
            "pascal",
            "psi",
            "MPa",
            (Unit("psi", "psi"), Unit("MPa", "megapascal"), Unit("Pa", "pascal")),
            0,
            1,
        ),
        QuantityKind(
            "torque",
            "a torque",
            "newton*meter",
            "lbf ft",
            "N m",
            (Unit("lbf ft", "pound_force*foot"), Unit("N m", "newton*meter")),
            1,
            1,
        ),
        QuantityKind(
            "velocity",
            "a belt or rim speed",
            "meter/second",
            "ft/min",
            "m/s",
            (
                Unit("ft/min", "foot/minute", ("fpm", "feet/min", "sfm")),
                Unit("m/s", "meter/second"),
                Unit("m/min", "meter/minute"),
                Unit("ft/s", "foot/second", ("fps",)),
            ),
            0,
            1,
        ),
        QuantityKind(
            "airflow",
            "an airflow",
            "meter**3/second",
            "cfm",
            "m³/s",
            (
                Unit("cfm", "foot**3/minute", ("ft3/min", "ft³/min")),
                Unit("m³/s", "meter**3/second", ("m3/s",)),
                Unit("m³/h", "meter**3/hour", ("m3/h", "m3/hr", "cmh")),
                Unit("L/s", "liter/second", ("l/s", "lps")),
            ),
            0,
            2,
        ),
        QuantityKind(
            "liquid flow",
            "a flow of liquid",
            "meter**3/second",
            "gpm",
            "L/min",
            (
                Unit("gpm", "gallon/minute", ("gal/min",)),
                Unit("L/min", "liter/minute", ("l/min", "lpm")),
                Unit("m³/h", "meter**3/hour", ("m3/h",)),
                Unit("L/s", "liter/second", ("l/s",)),
            ),
            1,
            1,
        ),
        QuantityKind(
            "displacement",
            "a volume a turn",
            "meter**3",
            "in³",
            "cm³",
            (
                Unit("in³", "inch**3", ("in3", "cu in", "cuin")),
                Unit("cm³", "centimeter**3", ("cm3", "cc", "ml")),
                Unit("L", "liter", ("l", "litre", "liter")),
                Unit("gal", "gallon", ("gallon", "gallons")),
            ),
            2,
            1,
        ),
        QuantityKind("current", "a current", "ampere", "A", "A", (Unit("A", "ampere", ("amp", "amps", "a")),), 1, 1),
        QuantityKind(
            "duration",
            "a time",
            "second",
            "h",
            "h",
            (
                Unit("h", "hour", ("hr", "hrs", "hour", "hours")),
                Unit("min", "minute", ("mins", "minutes")),
                Unit("d", "day", ("day", "days")),
            ),
            1,
            1,
        ),
        QuantityKind("frequency", "a frequency", "hertz", "Hz", "Hz", (Unit("Hz", "hertz", ("hz", "hertz", "cps")),), 0, 0),
        QuantityKind(
            "linear mass",
            "a mass per length",
            "kilogram/meter",
            "lb/ft",
            "kg/m",
            (
                Unit("lb/ft", "pound/foot", ("lbs/ft",)),
                Unit("kg/m", "kilogram/meter"),
                Unit("g/m", "gram/meter"),
            ),
            4,
            4,
        ),
        QuantityKind("angle", "an angle", "radian", "°", "°", (Unit("°", "degree", ("deg", "degrees")),), 0, 0),
        QuantityKind(
            "slope",
            "an angle or slope",
            "radian",
            "in/ft",
            "mm/m",
            (
                Unit("in/ft", "inch/foot"),
                Unit("mm/m", "millimeter/meter"),
                Unit("°", "degree", ("deg", "degrees")),
            ),
            3,
            1,
        ),
        QuantityKind(
            "turns", "a number of turns", "dimensionless", "turns", "turns", (Unit("turns", "dimensionless", ("turn", "t")),), 1, 1
        ),
        QuantityKind("number", "a number", "dimensionless", "", "", (Unit("", "dimensionless"),), 2, 2),
        QuantityKind("share", "a share", "dimensionless", "%", "%", (Unit("%", "percent"),), 1, 1),
    )
}
