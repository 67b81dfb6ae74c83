"""How tight, on every kind of drive: one bad belt, a typed note, a small blower, a manual's figure, a chain, a carriage, a deck."""

import re
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_drive


def by(page: Page, method: str) -> None:
    """Another way to measure."""
    page.get_by_role("button", name=re.compile("Measured by")).click()
    page.locator(".methods label").filter(has_text=method).click()
    expect(page.get_by_role("button", name=re.compile(f"Measured by.*{method}"))).to_be_visible()


def keep(page: Page) -> None:
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()


def said(page: Page) -> Any:
    """The verdicts under the reading."""
    return page.locator(".verdict")


def test_one_bad_belt_of_three_is_named_and_what_to_do_with_it(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Dust-collector fan", "Tension")
    for i, force in enumerate(("5.0", "2.6", "4.9"), 1):
        page.locator(f"#f-force_{i}").fill(force)
    expect(said(page).filter(has_text="Belt 2 is slack against the rest")).to_contain_text("read belt 2 again")
    expect(said(page).filter(has_text="Belt 2 is slack against the rest")).to_contain_text("replace the whole set")
    expect(page.locator(".scale")).to_contain_text("belt 2, now")
    keep(page)
    expect(page.get_by_text(re.compile("Last read today"))).to_be_visible()
    expect(page.locator(".scale .kept")).to_have_count(4)


def test_a_note_typed_in_and_what_was_typed_for_the_gauge_waits(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Grain auger", "Tension")
    page.locator("#f-force_1").fill("6.9")
    by(page, "Plucked note")
    expect(page.locator(".do")).to_contain_text("first harmonic")
    expect(page.locator("#f-force_1")).to_have_value("")
    for i in (1, 2, 3):
        page.locator(f"#f-force_{i}").fill("34 Hz")
    expect(page.locator(".means")).to_contain_text(re.compile(r"\d+\.\d"))
    expect(said(page).filter(has_text=re.compile("Right"))).to_be_visible()
    by(page, "Spring deflection gauge")
    expect(page.locator("#f-force_1")).to_have_value("6.9")
    by(page, "Plucked note")
    page.get_by_placeholder("turns by hand").fill("2")
    keep(page)
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Log").click()
    entry = page.locator(".entries .belt-tension").first
    expect(entry).to_contain_text("plucked note")
    expect(entry).to_contain_text("34 Hz")


def test_on_a_small_blower_an_inch_of_give_is_past_its_mounts(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Laboratory air cooler", "Tension")
    expect(page.locator(".scale")).to_contain_text("mounts, driver sheave")
    expect(page.get_by_text("Too light a push for a spring gauge to read well")).to_be_visible()
    page.get_by_text("By thumb: what the old rules mean here").click()
    expect(page.locator("p").filter(has_text="one inch of give")).to_contain_text("past its mounts")
    page.get_by_text("What it must hold, and what its bearings stand").click()
    expect(page.locator(".uppers li").filter(has_text="bushing pressure-velocity")).to_contain_text("ends at")
    by(page, "Plucked note")
    page.locator("#f-force_1").fill("38 Hz")
    expect(said(page).filter(has_text="Too tight: past its mounts")).to_contain_text("to slacken")
    page.locator(".wheels label").filter(has_text="driven sheave").click()
    page.locator("#f-wheel_2_bushing_length").fill("nothing")
    expect(page.locator(".problem").first).to_be_visible()


def test_a_manuals_figure_is_set_against_the_window_and_may_be_gone_by(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Bucket elevator 2", "Tension")
    page.get_by_text("The manual’s figure, and the take-up’s screws").click()
    page.locator("#f-manual_force").fill("14")
    page.locator("#f-manual_deflection").fill("1/2")
    expect(said(page).filter(has_text="What does the manual's force push?")).to_be_visible()
    page.locator("#f-manual_pushes").select_option("belt")
    wrong = said(page).filter(has_text="tighter than worked out")
    expect(wrong).to_contain_text("is not 1/64 of this span")
    page.get_by_text("Go by the manual’s figure on this drive").click()
    expect(page.locator(".scale")).to_contain_text("by the manual")
    page.get_by_role("button", name="Keep this survey").click()
    expect(page.get_by_text(re.compile(r"Survey \d kept"))).to_be_visible()
    page.reload()
    expect(page.locator(".scale")).to_contain_text("by the manual")


def test_a_chain_by_its_sag(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Drag-chain conveyor", "Tension")
    expect(page.locator(".do")).to_contain_text("straightedge over the teeth")
    page.locator("#f-force_1").fill("1 1/2 in")
    slack = said(page).filter(has_text="Too slack")
    expect(slack).to_contain_text("Move the sprockets apart")
    page.locator("#f-force_1").fill("5/8 in")
    expect(said(page).filter(has_text=re.compile("Right"))).to_be_visible()
    keep(page)


def test_a_carriage_belt_by_its_note(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Bag palletiser", "Tension")
    expect(page.locator(".do")).to_contain_text("Set every tension screw back to start")
    page.locator("#f-force_1").fill("24 Hz")
    expect(said(page).filter(has_text="Slack")).to_contain_text("by the machine's manual")
    page.locator("#f-force_1").fill("34 Hz")
    expect(said(page).filter(has_text=re.compile("Right"))).to_be_visible()


def test_a_deck_of_seven_wheels_is_read_engaged(open_as: Any) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    open_drive(page, "Yard sweeper", "Tension")
    expect(page.get_by_text("Held by idler that a spring pushes while it runs, slack side")).to_be_visible()
    page.locator("#f-force_1").fill("1 lbf")
    expect(page.get_by_text("Read it with the tensioner engaged")).to_be_visible()
    page.get_by_role("combobox", name=re.compile("^Tensioner")).select_option("yes")
    expect(page.get_by_text("Read it with the tensioner engaged")).to_be_hidden()
    expect(said(page).filter(has_text=re.compile("Slack|slack"))).to_contain_text("The spring sets it")
    page.get_by_label("Read on the run").select_option("1")
    expect(page.locator(".do")).not_to_contain_text("11/32 in (9 mm)")
    keep(page)


def test_the_station_wears_what_its_last_reading_left(open_as: Any) -> None:
    """The floor calls it slack: so does the mark on the station, before anything is read again."""
    page = open_as("Ines")
    open_drive(page, "Kiln exhaust fan", "Survey")
    expect(page.get_by_role("link", name="Tension wants attention")).to_be_visible()
    page.get_by_role("link", name="Back to the floor").click()
    open_drive(page, "Drag-chain conveyor", "Tension")
    expect(page.locator(".last")).to_contain_text("Right")
    expect(page.get_by_role("link", name="Tension wants attention")).to_have_count(0)
