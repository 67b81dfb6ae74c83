"""Bad input, keys, units, the phone, the viewer."""

import re
from typing import Any

import pytest
from playwright.sync_api import expect

from tests.browser.conftest import hop, open_drive

WRONG = (
    ("driver_diameter", "0", "3/4 to 120 in across"),
    ("driver_diameter", "1/0", "divides by zero"),
    ("centre_distance", "12 parsecs", "not a unit for a length here"),
    ("centre_distance", "6", "would overlap"),
    ("driver_speed", "50000", "between 0.1 and 20 000 rpm"),
    ("driver_power", "-2", "never below zero"),
    ("belt", "B35", "too short to span"),
    ("belt_count", "two", "1 to 20"),
)


def test_a_sentence_beside_the_field_and_nothing_lost(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Steep-water pump")
    for field, text, says in WRONG:
        expect(page.locator("svg[role=img] .belt")).to_be_visible()
        entry = page.locator(f"#f-{field}")
        entry.fill(text)
        expect(page.locator(".field").filter(has=entry)).to_contain_text(says)
        expect(page.locator("svg[role=img] .belt")).to_be_visible()
        page.get_by_role("button", name="Keep this survey").click()
        expect(page.get_by_role("alert")).to_contain_text("Not kept")
        if text in ("0", "B35"):  # a number and a word
            page.reload()
        expect(entry).to_have_value(text)
        page.get_by_role("button", name="Discard changes").click()
        page.get_by_role("button", name="Discard", exact=True).click()
        expect(entry).not_to_have_value(text)
        expect(page.get_by_role("alert")).to_have_count(0)


def test_ten_megabytes_of_text_get_a_sentence(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Steep-water pump")
    page.evaluate(
        """() => { const e = document.querySelector('#f-centre_distance'); e.value = '7'.repeat(10_000_000); e.dispatchEvent(new Event('input')) }"""
    )
    expect(page.get_by_text("That is too long to be a length")).to_be_visible()
    assert page.evaluate("document.querySelector('#f-centre_distance').value.length") == 10_000_000


def test_units_offer_and_memory(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Steep-water pump")
    centres = page.locator("#f-centre_distance")
    field = page.locator(".field").filter(has=centres)
    centres.fill("889")
    field.get_by_role("button", name="889 mm?").click()
    expect(field).to_contain_text("35 in · 889.0 mm")
    centres.fill("35 in")
    centres.blur()
    expect(field.get_by_label("Unit of Centre distance")).to_have_value("in")
    page.locator("h1").click()
    page.keyboard.press("u")
    expect(page.locator(".strip")).to_contain_text("m/s")
    centres.fill("99")
    centres.press("Escape")
    expect(centres).to_have_value("35 in")
    centres.press("Enter")
    expect(page.locator("#f-travel_in")).to_be_focused()


def test_keys(open_as: Any) -> None:
    page = open_as("Ines")
    page.keyboard.press("/")
    page.keyboard.type("kiln")
    expect(page.locator("a.drive")).to_have_count(2)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(page.locator("svg[role=img] .belt")).to_be_visible()
    page.keyboard.press("4")
    expect(page).to_have_url(re.compile("/tension$"))
    page.locator("#f-force_1").focus()
    page.keyboard.press("2")
    expect(page.locator("#f-force_1")).to_have_value("2")
    page.keyboard.press("Alt+5")
    expect(page).to_have_url(re.compile("/align$"))
    page.keyboard.press("7")
    expect(page).to_have_url(re.compile("/log$"))
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()


def test_phone(open_as: Any) -> None:
    page = open_as("Ines", 390, 844, touch=True)
    open_drive(page, "Kiln exhaust fan", "Tension")
    page.locator("#f-force_5").scroll_into_view_if_needed()
    drawing = page.locator(".board .frame").bounding_box()
    assert drawing and drawing["height"] >= 140 and drawing["y"] >= -1, "the drawing stays on top"
    for station in ("Survey", "Speed", "Size", "Tension", "Log"):
        page.get_by_role("link", name=station).click()
        expect(page.locator("[data-panel]")).to_be_visible()
        page.wait_for_timeout(150)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, station
    page.goto("/floor")
    assert page.evaluate("document.documentElement.scrollWidth") <= 390


@pytest.mark.parametrize("half", (0, 1))
def test_every_surveyed_drive_draws_without_labels_on_each_other(open_as: Any, half: int) -> None:
    page = open_as("Ines")
    surveyed = page.locator("a.drive").filter(has=page.locator(".belts b"))
    expect(surveyed.nth(8)).to_be_visible()
    links = surveyed.evaluate_all("found => found.map(a => a.getAttribute('href'))")
    for link in links[half::2]:
        for station in ("survey", "speed", "tension"):
            hop(page, f"{link}/{station}")
            expect(page).to_have_url(re.compile(f"{link}/{station}$"))
            expect(page.locator("svg[role=img] .belt, svg[role=img] .plate").first).to_be_visible()
            page.wait_for_timeout(120)
            boxes = page.locator("svg[role=img] rect.ground").evaluate_all(
                "found => found.map(r => { const b = r.getBoundingClientRect(); return [b.x, b.y, b.right, b.bottom] })"
            )
            for i, a in enumerate(boxes):
                for b in boxes[i + 1 :]:
                    assert not (a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3]), (link, station, a, b)


def test_a_viewer_looks_and_is_told_so(open_as: Any) -> None:
    page = open_as("Rowan")
    expect(page.get_by_role("button", name="New drive")).to_have_count(0)
    open_drive(page, "Kiln exhaust fan", "Tension")
    expect(page.get_by_text("Saving needs the Mechanic role")).to_be_visible()
    expect(page.get_by_role("button", name="Keep this reading")).to_have_count(0)


def test_a_flat_belt_drive_is_surveyed(open_as: Any) -> None:
    page = open_as("Ines")
    page.get_by_role("link", name="Workshop lathe").first.click()
    expect(page).to_have_url(re.compile("/survey$"))
    expect(page.get_by_role("heading", name="The driven's crown holds the belt in the middle")).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("1 driver, driver, belt on its inside, turns clockwise"))).to_be_visible()
    page.locator("#f-driven_face").fill("1 3/4 in")
    expect(page.get_by_role("heading", name="The driven's face is narrower than the belt")).to_be_visible()
    page.locator("#f-lay").select_option("crossed")
    expect(page.get_by_role("img", name=re.compile("2 driven wheel, driven, belt on its inside, turns counter-clockwise"))).to_be_visible()
    page.locator("#f-centre_distance").fill("near")
    expect(page.locator("#d-centre_distance .problem")).to_be_visible()
    page.locator("#f-centre_distance").fill("40 in")
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.get_by_role("link", name="Log").click()
    expect(page.get_by_text("Lacing worn at one edge").first).to_be_visible()
