"""Finding the belt.

From an unlabelled belt to the counter slip, with no belt at all, a wrong belt by its ride, a get-home fix that comes due.
"""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from tests.browser.conftest import open_drive


def ask(page: Page, title: str) -> None:
    link = page.get_by_role("navigation", name="Questions").get_by_role("link", name=title)
    link.click()
    expect(link).to_have_attribute("aria-current", "true")


def test_an_unlabelled_belt_to_the_counter_slip_by_keyboard_alone(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Barley screener")
    page.get_by_role("link", name="Which belt?").focus()
    page.keyboard.press("Enter")
    page.locator("#f-top_width").focus()
    page.keyboard.type("12.6 mm")
    page.keyboard.press("Enter")
    expect(page.locator("#f-thickness")).to_be_focused()
    expect(page.get_by_text(re.compile("Next: .*thickness|Next: Look at how"))).to_be_visible()
    page.keyboard.type("10.1 mm")
    page.keyboard.press("Enter")
    page.keyboard.type("1872 mm")
    page.locator("#f-construction").focus()
    page.keyboard.type("wrapped")
    verdict = page.locator("[data-panel] .verdict h3").first
    expect(verdict).to_contain_text("SPA")
    expect(page.get_by_role("img", name=re.compile("1 top width, done: .*2 thickness, done"))).to_be_visible()
    candidate = page.get_by_role("button", name=re.compile(r"^SPA 18\d0")).first
    candidate.focus()
    page.keyboard.press("Enter")
    slip = page.get_by_role("article", name="Counter slip")
    expect(slip).to_contain_text("a matched set of 2")
    expect(slip).to_contain_text("A: looks alike")
    keep = page.get_by_role("button", name="Keep this slip on the drive")
    keep.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_text(re.compile("Kept on the drive: ask for SPA"))).to_be_visible()
    href = page.get_by_role("link", name="Open as PDF to print").get_attribute("href")
    answer = page.request.get(str(href))
    assert answer.headers["content-type"] == "application/pdf" and answer.body().startswith(b"%PDF")
    page.reload()
    expect(page.get_by_text(re.compile("Last slip kept:"))).to_be_visible()
    page.go_back()
    expect(page.locator("#f-top_width")).to_have_value("12.6 mm")


def test_another_device_finds_what_was_measured_on_the_slip(open_as: Any) -> None:
    first = open_as("Ines")
    open_drive(first, "Bucket elevator 2")
    ask(first, "Which belt?")
    first.locator("#f-label").fill("B5?")
    ask(first, "Counter slip")
    first.get_by_label("Belt", exact=True).fill("B55")
    first.get_by_role("button", name="Keep this slip on the drive").click()
    expect(first.get_by_text("Kept on the drive: ask for B55")).to_be_visible()
    second = open_as("Tobias")
    open_drive(second, "Bucket elevator 2")
    ask(second, "Which belt?")
    expect(second.locator("#f-label")).to_have_value("B5?")


def test_no_belt_at_all(open_as: Any) -> None:
    page = open_as("Ines")
    page.get_by_role("button", name="New drive").click()
    page.get_by_placeholder("as painted on it").fill("Bare auger")
    page.get_by_placeholder("main drive, supply fan drive…").fill("Auger drive")
    page.get_by_role("button", name="Keep, and go to its survey").click()
    ask(page, "No belt")
    expect(page.get_by_role("img", name=re.compile("^To measure, in order: 1 belt section; 2 driver"))).to_be_visible()
    page.locator("#f-section").select_option("HB")
    expect(page.get_by_text("Next: Measure the driver sheave across the outside")).to_be_visible()
    for name, size in (
        ("driver_diameter", "6 in"),
        ("driven_diameter", "8"),
        ("centre_distance", "40"),
        ("travel_in", "2"),
        ("travel_out", "3"),
    ):
        page.locator(f"#f-{name}").fill(size)
        page.locator(f"#f-{name}").press("Enter")
    expect(page.get_by_role("heading", name=re.compile(r"Ask for HB\d+"))).to_be_visible()
    expect(page.get_by_text(re.compile("room to fit and to take up")).first).to_be_visible()
    page.get_by_text("The belt is the clutch").click()
    expect(page.get_by_role("heading", name=re.compile("a quarter of an inch matters"))).to_be_visible()
    page.get_by_role("button", name=re.compile(r"^HB\d+")).first.click()
    expect(page.get_by_role("article", name="Counter slip")).to_contain_text("these centres take")


def test_a_wrong_belt_is_found_by_its_ride(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Steep-water pump")
    ask(page, "Sits right?")
    expect(page.get_by_role("heading", name="B belongs in a B groove")).to_be_visible()
    page.locator("#f-ride").fill("7/32")
    page.locator("#f-ride_way").select_option("sunk")
    expect(page.get_by_role("heading", name=re.compile("^The belt sits .* below the rim"))).to_be_visible()
    expect(page.get_by_role("heading", name="It does not sit where these sizes put it")).to_be_visible()
    page.locator("#f-top_width").fill("12.6 mm")
    page.locator("#f-belt_section").select_option("A")
    expect(page.get_by_role("heading", name="A in a B groove only gets you home")).to_be_visible()
    page.locator("#f-belt_section").select_option("5V")
    expect(page.get_by_role("heading", name="5V does not belong in a B groove")).to_be_visible()
    page.get_by_text("New beside used").click()
    expect(page.get_by_role("heading", name="New and used belts in one set")).to_be_visible()
    page.locator("#f-ride").fill("three")
    expect(page.locator("#d-ride .problem")).to_be_visible()
    expect(page.locator("#f-ride")).to_have_value("three")


def test_a_get_home_fix_appears_as_due_and_goes(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Roller mill")
    ask(page, "Get home")
    expect(page.get_by_text(re.compile("A belt that slips in dust that burns is a fire.*until the right set is on"))).to_be_visible()
    expect(page.get_by_role("button", name="this one")).to_have_count(0)
    page.goto("/floor")
    open_drive(page, "Refrigeration compressor 1")
    ask(page, "Get home")
    page.get_by_role("listitem").filter(has_text="1 of 4 on:").get_by_role("button", name="this one").click()
    expect(page.locator("#f-fix_count")).to_have_value("1")
    page.locator("#f-fix_section").select_option("D")
    page.locator("#f-fix_count").fill("2")
    expect(page.get_by_text(re.compile("Never D in a C groove"))).to_be_visible()
    page.locator("#f-fix_section").select_option("")
    expect(page.get_by_text(re.compile("How hard to run meanwhile"))).to_be_visible()
    page.get_by_role("button", name="Record as temporary, raise the due").click()
    expect(page.get_by_role("region", name="Get-home fix on this drive")).to_contain_text("2 of 4 belts")
    page.goto("/floor")
    promise = (
        page.locator("aside")
        .get_by_role("link")
        .filter(has_text="Get-home fix off: 2 of 4 belts")
        .filter(has_text="Refrigeration compressor 1")
    )
    promise.click()
    page.get_by_role("button", name="The right belts are on again").click()
    expect(page.get_by_text("The right belts are on again: the due is done.")).to_be_visible()
    page.goto("/floor")
    expect(page.locator("a.drive").filter(has_text="Refrigeration compressor 1")).to_be_visible()
    expect(promise).to_have_count(0)


def test_the_shop_list_answers_for_the_machines_own_number(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Malt cooler blower")
    ask(page, "Which belt?")
    part = page.get_by_role("region", name="The machine's own part number")
    expect(part).to_contain_text("Your shop's list says B85")
    part.get_by_role("button", name="Load a shop list (CSV)").click()
    slip = page.get_by_role("dialog", name="Your shop's cross-reference")
    rows = b"part_number,designation,note\nMC-22 set of 3,BX85,notched now\nQ-1,marmalade,\n"
    slip.locator("input[type=file]").set_input_files({"name": "list.csv", "mimeType": "text/csv", "buffer": rows})
    expect(slip.get_by_role("status")).to_contain_text("1 changed, 0 as before, 1 not taken")
    expect(slip.get_by_role("row", name=re.compile("Q-1"))).to_contain_text("is not a belt name known here")
    page.keyboard.press("Escape")
    expect(part).to_contain_text("Your shop's list says BX85")
    part.get_by_role("button", name="Take it").click()
    expect(page.get_by_role("article", name="Counter slip")).to_contain_text("BX85")


def test_sets_that_die_early_raise_a_finding(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Drill press")
    ask(page, "Counter slip")
    for hours in ("400 h", "350 h"):
        page.locator("#f-set_hours").fill(hours)
        page.get_by_role("button", name="Keep this life").click()
        expect(page.get_by_text(re.compile(hours.replace(" h", r" h\s+to")))).to_be_visible()
    expect(page.get_by_text("a finding is raised on the drive")).to_be_visible()
    page.goto("/floor")
    expect(page.locator("a.drive").filter(has_text="Drill press")).to_contain_text("Sets die early")


def test_the_tables_replace_the_sheet_on_the_wall(open_as: Any) -> None:
    page = open_as("Rowan")
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_role("heading", name="V-belt sections")).to_be_visible()
    page.get_by_label("Filter").fill("SPA")
    row = page.get_by_role("row", name=re.compile("^SPA "))
    expect(row).to_contain_text("0.5")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Units").click()
    expect(row).to_contain_text("12.7")
    expect(row).to_contain_text("high")
    page.get_by_role("link", name="Sheave grooves").click()
    page.get_by_label("Filter").fill("combination")
    expect(page.get_by_role("status")).to_contain_text("4 of 123 rows")
    page.reload()
    expect(page.get_by_label("Filter")).to_have_value("combination")
    page.get_by_label("Filter").fill("no such thing")
    page.get_by_role("button", name="Show all rows").click()
    expect(page.get_by_role("status")).to_contain_text("123 rows")


@pytest.mark.parametrize("width", [390, 1280])
def test_every_question_fits(open_as: Any, width: int) -> None:
    page = open_as("Ines", width, 844, touch=width == 390)
    open_drive(page, "Kiln exhaust fan")
    for title in ("Which belt?", "No belt", "Sits right?", "Get home", "Counter slip"):
        ask(page, title)
        if title == "Which belt?":
            page.locator("#f-top_width").fill("7/8")
            page.locator("#f-outside_length").fill("148 1/4")
        page.wait_for_timeout(250)
        assert page.evaluate("document.documentElement.scrollWidth") <= width, title
        if width == 390:
            drawing = page.locator(".board .frame").bounding_box()
            assert drawing and drawing["height"] >= 140, title
    for address in ("/bench/tables/v_grooves", "/bench/belt"):
        page.goto(address)
        page.wait_for_timeout(300)
        assert page.evaluate("document.documentElement.scrollWidth") <= width, address
