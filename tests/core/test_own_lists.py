"""A shop's own ratings and parts: files read row by row, tables against SciPy and the standard, the shelf searched and priced."""

import json
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.interpolate import LinearNDInterpolator

from tests.core.test_selection import FAN, OWN, OWN_TEXT, PARTS, PARTS_TEXT
from tests.drives import v_spec
from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import to_si
from tuyere.core.basis.typed import Given
from tuyere.core.drive.sheet.solve import solve
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import NONE
from tuyere.core.kinds.v_belt import rating as vee
from tuyere.core.kinds.v_belt import section
from tuyere.core.stations.size import own_ratings as own
from tuyere.core.stations.size import parts_list
from tuyere.core.stations.size.compare import compare
from tuyere.core.stations.size.own_ratings import read_ratings
from tuyere.core.stations.size.parts_list import PartsList, read_parts
from tuyere.core.stations.size.rank import Wishes, parts_of, rank
from tuyere.core.stations.size.search import search
from tuyere.core.stations.size.shelf import stock

RPM = math.pi / 30


def test_the_examples_are_taken_whole() -> None:
    for report in (read_ratings(own.EXAMPLE), read_parts(parts_list.EXAMPLE), read_ratings(OWN_TEXT), read_parts(PARTS_TEXT)):
        assert report.refused == "" and report.rows and all(r.taken for r in report.rows), [r for r in report.rows if not r.taken]


def test_json_says_the_same_as_csv() -> None:
    head, *lines = parts_list.EXAMPLE.strip().split("\n")
    rows = [dict(zip(head.split(","), line.split(","), strict=True)) for line in lines]
    again = read_parts(json.dumps([{**row, "price": float(row["price"])} for row in rows])).parts.rows
    assert [replace(r, line=0) for r in again] == [replace(r, line=0) for r in read_parts(parts_list.EXAMPLE).parts.rows]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("for,size\nB,100 mm", "speed and power is missing"),
        ("[1, 2]", "list of objects"),
        ("{oops", "cannot be read as JSON"),
        ("a\x00b", "not a text file"),
    ],
)
def test_a_file_that_is_no_table_is_refused_with_what_to_do(text: str, words: str) -> None:
    assert words in read_ratings(text).refused


def test_each_bad_row_says_what_to_do_and_spoils_only_its_own_table() -> None:
    good = "SPA,100 mm,960 rpm,1 kW\nSPA,100 mm,1450 rpm,2 kW\nSPA,200 mm,960 rpm,3 kW\nSPA,200 mm,1450 rpm,4 kW\n"
    bad = {
        "Q,100 mm,960 rpm,1 kW": "not a belt or chain known here",
        "B,100,960 rpm,1 kW": "with its unit",
        "B,100 mm,960 rpm,": "No power",
        "60,x,960 rpm,1 kW": "whole number",
        "B,100 mm,960 rpm,1 kW": "cannot be read",
        "A,100 mm,960 rpm,1 kW": "at least two sizes",
        "H8M,32,960 rpm,1 kW": "No width",
    }
    report = read_ratings("for,size,speed,power\n" + good + "\n".join(bad))
    assert list(report.ratings.tables) == ["SPA"]
    for row, words in zip(report.rows[4:], bad.values(), strict=True):
        assert not row.taken and words in row.sentence, row
    hole = read_ratings("for,size,speed,power\n" + good.replace("SPA,200 mm,1450 rpm,4 kW\n", "SPA,300 mm,1450 rpm,4 kW\n"))
    assert "no figure for" in hole.rows[0].sentence
    twice = read_ratings("for,size,speed,power\n" + good + "SPA,100 mm,960 rpm,9 kW\n")
    assert "stand in line 2" in twice.rows[-1].sentence and not twice.ratings.tables


@given(st.floats(0.1, 0.2), st.floats(960, 1450))
def test_between_its_figures_a_table_is_read_straight(size: float, rpm: float) -> None:
    """On a plane any straight reading agrees: SciPy's triangulated one here."""
    points = [(d, n) for d in (100, 140, 200) for n in (960, 1200, 1450)]
    text = "for,size,speed,power\n" + "\n".join(f"B,{d} mm,{n} rpm,{20 * d + 2 * n} W" for d, n in points)
    table = read_ratings(text).ratings.of("B")
    assert table
    plane = LinearNDInterpolator([(d / 1000, n) for d, n in points], [20 * d + 2 * n for d, n in points])
    assert table.rated(size, rpm * RPM) == pytest.approx(float(plane(size, rpm)), rel=1e-9)
    with pytest.raises(OutOfRangeError, match="Your own table of B goes"):
        table.rated(0.25, rpm * RPM)


def test_ratio_holds_from_its_step_on_and_many_are_as_one() -> None:
    table = OWN.of("B")
    assert table and len(table.ratios) == 2
    low, high = (table.rated(0.15, 1160 * RPM, ratio) for ratio in (1.49, 1.5))
    assert high > low
    many = table.power(np.array([0.15, 0.15, 9.0]), 1160 * RPM, np.array([1.49, 1.5, 1.5]))
    assert many[:2].tolist() == [low, high] and np.isnan(many[2])


def test_a_table_made_of_the_standards_own_figures_compares_as_nothing() -> None:
    of = section("B")
    rows_ = [
        f"B,{d} mm,{n} rpm,{vee.rated_power(of, d / 1000, n * RPM, 1.0).total_w / 1000:.6f} kW"
        for d in (140, 200)
        for n in (870, 1160, 1750)
    ]
    table = read_ratings("for,size,speed,power\n" + "\n".join(rows_)).ratings.of("B")
    assert table and compare(table).says == "+0% against the standard's figures."
    assert "only figure" in compare(OWN.tables["2L"]).says
    assert "against the estimate" in compare(OWN.tables["PK"]).says and "against the estimate" in compare(OWN.tables["H8M"]).says
    assert all(s and s > 0 for c in compare(OWN.tables["H8M"]).curves for s in c.standard_w)


def test_the_sheet_rates_by_the_shops_table_and_says_so() -> None:
    def given_(value: float) -> Given:
        return Given(value, 0.0, Origin.MEASURED, "")

    spec = v_spec(
        {
            "driver_power": given_(to_si(5, "power", "hp")),
            "driver_speed": given_(1750 * RPM),
            "driven_class": "light",
            "hours_per_day": given_(8 * 3600),
        },
        section=section("B"),
        driver_diameter=given_(0.14),
        driver_basis="datum",
        driven_diameter=given_(0.28),
        driven_basis="datum",
        centre_distance=given_(0.6),
        belt_count=2,
    )
    by_standard, by_own = solve(spec), solve(replace(spec, own=OWN))
    assert by_own.figures["rated_power"].value_si == pytest.approx(OWN.tables["B"].rated(0.14, 1750 * RPM, 2.0))
    assert "your own table" in by_own.figures["rated_power"].working.source
    assert by_standard.figures["rated_power"].value_si != by_own.figures["rated_power"].value_si
    assert by_own.figures["length_factor"].value_si == by_standard.figures["length_factor"].value_si
    past = solve(replace(spec, driver_speed=given_(3000 * RPM), own=OWN))
    assert any("past that it says nothing" in v.detail for v in past.verdicts)


def test_a_list_is_all_that_is_searched_and_the_shelf_counts_what_lies_there() -> None:
    wide = replace(FAN, tolerance=0.2, centre_low_m=0.3, centre_high_m=1.2, power_w=1500)
    listed, shelf = stock(NONE, PARTS, "list"), stock(NONE, PARTS, "shelf")
    assert {k.name for k in listed} == {"B", "B joined", "B on flat", "PK", "H8M", "60", "leather 1ply medium"} and not any(
        k.assumed for k in listed
    )
    found = search(wide, listed)
    b = next(f for f in found.found if f.kind.name == "B")
    assert {w.name for w in b.driver_wheels} == {"5.4 in, 3 grooves", "11 in, 3 grooves", "11 in, 1 groove (OLD-11)"}
    assert max(np.array(b.kind.counts)[b.count]) == 3
    on_shelf = next(f for f in search(wide, shelf).found if f.kind.name == "B")
    assert max(np.array(on_shelf.kind.counts)[on_shelf.count]) == 2, "two B68 lie there"
    assert search(wide, shelf).killed["list"] > 0


def test_prices_add_up_to_what_the_list_says_of_each_part() -> None:
    wide = replace(FAN, tolerance=0.3, centre_low_m=0.3, centre_high_m=1.2, power_w=500)
    price = {r.said if r.part != "wheel" else (r.fits, r.said, r.grooves): r.price for r in PARTS.rows}
    for which in ("list", "common"):
        ranked = rank(wide, search(wide, stock(NONE, PARTS, which)), Wishes({"price": 1.0}))
        assert ranked
        known = np.flatnonzero(~np.isnan(ranked.measures["price"]))
        assert len(known)
        of_b = [n for n in known if ranked.searched.found[ranked.of[n]].kind.name == "B"]
        cheapest = min(float(ranked.measures["price"][n]) for n in of_b)
        # One B68 (12) on 5.4 in (30) and 11 in: the single-groove one (20) in either stock, with 3 grooves' 5.4 only from the list.
        assert cheapest == pytest.approx({"list": 12 + 30 + 20, "common": 3 * 12 + 30 + 70}[which])
        chains = [n for n in known if ranked.searched.found[ranked.of[n]].kind.name == "60"]
        n = chains[0]
        f, at = ranked.searched.found[ranked.of[n]], ranked.at[n]
        metres = f.kind.lengths[f.length[at]].line_m
        wheels = sum(price["60", f"{w.teeth} teeth", 1] for w in (f.driver_wheels[f.driver[at]], f.driven_wheels[f.driven[at]]))
        assert ranked.measures["price"][n] == pytest.approx(wheels + 10 * metres) and parts_of(f, int(at))
    kept = rank(wide, search(wide, stock(NONE, PartsList(), "common")), Wishes())
    assert kept and "price" not in kept.measures


def test_rows_of_parts_that_cannot_be_taken() -> None:
    bad = {
        "bolt,B,1": "wheel, belt or chain",
        "wheel,Q,5 in": "no belt known here",
        "wheel,B,5": "with its unit",
        "wheel,B,5000 m": "cannot be",
        "wheel,8M,32": "no belt known here",
        "belt,B,A40": "set to B",
        "belt,B,nonsense": "not a belt name",
        "chain,60,100": "cut to length",
        "chain,B,": "no chain known here",
        "belt,60,": "no belt known here",
        "wheel,60,4": "5 to 500",
        "belt,H8M,8M-1200": "width",
    }
    report = read_parts("part,for,size\n" + "\n".join(bad))
    for row, words in zip(report.rows, bad.values(), strict=True):
        assert not row.taken and words in row.sentence, row
    assert "line 2" in read_parts("part,for,size\nbelt,B,B68\nbelt,B,B 68\n").rows[1].sentence
    assert "plain number" in read_parts("part,for,size,price\nbelt,B,B68,lots\n").rows[0].sentence


def test_one_length_listed_in_two_widths_stands_once() -> None:
    """6PK1250 and 4PK1250 are one length of PK: each drive of it is offered once."""
    for kind in (*stock(NONE, PARTS, "list"), *stock(NONE, PARTS, "shelf"), *stock(OWN, PARTS, "list")):
        names = [x.name for x in kind.lengths]
        assert len(names) == len(set(names)), kind.name
