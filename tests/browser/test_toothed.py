"""Toothed belts and chains on the bench: which one, how worn, its wheels and exact centres, and the template at 1:1."""

import re
from typing import Any

from playwright.sync_api import expect

from tests.browser.conftest import open_drive


def test_a_worn_chain_is_told_from_its_look_alikes(open_as: Any, address: str) -> None:
    page = open_as("Ines")
    page.goto(f"{address}/bench/chain")
    page.locator("#f-pitch_span").fill("6 5/32 in")
    expect(page.get_by_text("Count the steps between the two edges measured, such as 20.")).to_be_visible()
    page.locator("#f-pitch_count").fill("12")
    page.locator("#f-roller_diameter").fill("0.31 in")
    expect(page.get_by_role("heading", name="Most likely 40")).to_be_visible()
    expect(page.get_by_role("heading", name=re.compile(r"Worn: 2\.6 %"))).to_be_visible()
    page.get_by_role("button", name=re.compile("Next: Measure the gap between the inner plates")).click()
    expect(page.locator("#f-inner_width")).to_be_focused()
    page.locator("#f-inner_width").fill("5/16 in")
    expect(page.get_by_role("heading", name="It is 40")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("^40 to scale, pitch 0.500 in"))).to_be_visible()
    page.locator("#f-roller_diameter").fill("8.5 mm")
    page.locator("#f-inner_width").fill("7.75 mm")
    expect(page.get_by_role("heading", name="It is 08B")).to_be_visible()
    page.reload()
    expect(page.get_by_role("heading", name="It is 08B")).to_be_visible()
    page.locator("#f-label").fill("banana")
    expect(page.get_by_text(re.compile("“banana” is not a chain known here"))).to_be_visible()
    page.get_by_role("button", name="Start over").click()
    expect(page.get_by_role("heading", name="Measure the pitch first, over as many as you can")).to_be_visible()


def test_sprockets_and_exact_centres(open_as: Any, address: str) -> None:
    page = open_as("Ines")
    page.goto(f"{address}/bench/chain")
    page.locator("#f-name").select_option("140")
    page.locator("#f-teeth_1").fill("17")
    page.locator("#f-teeth_2").fill("34")
    page.locator("#f-count").fill("76")
    # Shigley, Example 17-5: 43.93 in (from memory).
    expect(page.get_by_text("76 pitches: centres 43 15/16 in")).to_be_visible()
    page.locator("#f-count").fill("75")
    expect(page.get_by_role("heading", name="An odd number of pitches wants an offset link")).to_be_visible()
    page.locator("#f-count").fill("40")
    expect(page.get_by_text("The chain is too short to go round both sprockets")).to_be_visible()


def test_a_toothed_belt_by_pitch_and_by_name_and_its_paper_template(open_as: Any, address: str) -> None:
    page = open_as("Ines")
    page.goto(f"{address}/bench/toothed")
    page.locator("#f-label").fill("8M-1200-30")
    expect(page.get_by_text("1200-H8M-30: 150 teeth")).to_be_visible()
    expect(page.get_by_role("heading", name="H8M, S8M and R8M look alike")).to_be_visible()
    page.locator("#f-pitch_span").fill("160 mm")
    page.locator("#f-pitch_count").fill("20")
    page.locator("#f-belt_thickness").fill("6.0 mm")
    expect(page.get_by_role("heading", name="It is H8M")).to_be_visible()
    page.locator("tr", has=page.get_by_role("rowheader", name="H8M")).get_by_role("button", name="take it").click()
    page.locator("#f-teeth_1").fill("28")
    page.locator("#f-teeth_2").fill("56")
    page.locator("#f-count").fill("150")
    expect(page.get_by_role("heading", name=re.compile("150 teeth: centres"))).to_be_visible()
    page.emulate_media(media="print")
    paper = page.locator("svg.paper").bounding_box()
    # 180 mm wide at 96 dots an inch: true to scale on paper.
    assert paper and abs(paper["width"] - 180 / 25.4 * 96) < 1


def test_the_chain_bench_on_a_phone(open_as: Any, address: str) -> None:
    page = open_as("Rowan", 390, 844, touch=True)
    page.goto(f"{address}/bench/chain")
    page.locator("#f-pitch_span").fill("305 mm")
    page.locator("#f-pitch_count").fill("24")
    expect(page.get_by_role("heading", name=re.compile("Most likely 40|It is 40"))).to_be_visible()
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


def test_a_chain_drive_is_surveyed_and_kept_with_its_dogs(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Overhead sack conveyor")
    expect(page.get_by_role("heading", name="It is 08B")).to_be_visible()
    expect(
        page.get_by_role("heading", name="The dogs are worn, the conveyor chain is not: the dog that leaves carries all")
    ).to_be_visible()
    expect(page.get_by_role("img", name="4 dogs against the conveyor's rollers, moving right; 1 touch")).to_be_visible()
    page.locator("#f-dog_span").fill("36.3 in")
    expect(page.get_by_role("heading", name="Dogs and conveyor chain match")).to_be_visible()
    page.locator("#f-bears_on").select_option("vertical rollers")
    expect(page.get_by_role("heading", name="The dogs push on the vertical rollers")).to_be_visible()
    page.locator("#f-count").fill("20")
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text("The chain is too short to go round both sprockets").first).to_be_visible()
    page.locator("#f-count").fill("80")
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.reload()
    expect(page.locator("#f-count")).to_have_value("80")
    expect(page.get_by_role("heading", name="The dogs push on the vertical rollers")).to_be_visible()
    page.get_by_role("link", name="Log").click()
    expect(page.locator(".entries li").first).to_contain_text("08B, 80 pitches")


def test_a_carriage_belt_is_plucked_against_its_manual(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Bag palletiser")
    page.locator("#f-linear_pluck").fill("26 Hz")
    expect(page.get_by_role("heading", name=re.compile("At 57% of its tension: tighten it"))).to_be_visible()
    page.locator("#f-linear_pluck").fill("34 Hz")
    expect(page.get_by_role("heading", name=re.compile(r"At 97% of its tension: as it should be"))).to_be_visible()
    page.locator("#f-linear_pluck").fill("a hum")
    expect(page.locator("#d-linear_pluck .problem")).to_be_visible()
    expect(page.locator("#f-linear_pluck")).to_have_value("a hum")
    page.get_by_role("button", name="Counter slip").click()
    expect(page.get_by_role("article", name="Counter slip")).to_contain_text("544 teeth from the roll")
    page.get_by_role("button", name="Keep this slip on the drive").click()
    expect(page.get_by_text("Kept on the drive: ask for AT10 open.")).to_be_visible()
    expect(page.get_by_role("link", name="Open as PDF to print")).to_be_visible()


def test_a_flat_belt_drive_is_surveyed(open_as: Any) -> None:
    """Lengths by the open-belt formula: 2C + π(D+d)/2 + (D-d)²/4C = 98.02 in at the rims (Machinery's Handbook)."""
    page = open_as("Marta")
    open_drive(page, "Workshop lathe")
    page.locator("#f-lay").select_option("open")
    page.locator("#f-driven_face").fill("2 1/2 in")
    page.locator("#f-centre_distance").fill("38 in")
    expect(page.get_by_text(re.compile(r"Steel tape round both .*98 1.64 in")).first).to_be_visible()
    expect(page.get_by_text("driven's crown holds the belt").first).to_be_visible()
    page.locator("#f-driver_face").fill("1 1/2")
    expect(page.get_by_role("heading", name="The driver's face is narrower than the belt")).to_be_visible()
    page.get_by_role("button", name="Counter slip").click()
    expect(page.get_by_role("article", name="Counter slip")).to_contain_text("98 1/64 in")


def test_link_belting_is_cut_and_turned_round(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Sack roller conveyor")
    page.get_by_role("navigation", name="Questions").get_by_role("link", name="Link belt").click()
    expect(page.get_by_role("heading", name="The tabs lead: turn the belt round")).to_be_visible()
    expect(page.get_by_role("img", name="The tabs lead: turn the belt round")).to_be_visible()
    page.locator("#f-tabs").select_option("trailing")
    expect(page.get_by_role("img", name="The tabs trail: right")).to_be_visible()
    page.locator("#f-link_count").fill("")
    expect(page.get_by_text("Count the steps between the two edges measured")).to_be_visible()
    page.locator("#f-link_count").fill("12")
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.reload()
    expect(page.locator("#f-tabs")).to_have_value("trailing")


def test_a_ribbed_belt_by_its_rib_pitch(open_as: Any, address: str) -> None:
    """ISO 9982: PK ribs lie 3.56 mm apart."""
    page = open_as("Ines")
    page.goto(f"{address}/bench/belt")
    page.locator("#f-groove_spacing").fill("3.56 mm")
    expect(page.get_by_text("PK").first).to_be_visible()
