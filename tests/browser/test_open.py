"""What people saw, what was done and what falls due, in the real interface."""

import re
from datetime import timedelta
from typing import Any

from playwright.sync_api import Page, expect

from tests.browser.conftest import open_drive
from tuyere.store import clock


def slip(page: Page) -> Any:
    """The drawer that is open."""
    return page.locator(".el-drawer").last


def gauge(page: Page, force: str) -> None:
    """Every belt of the set at one force."""
    for field in page.locator("[id^='f-force_']").all():
        field.fill(f"{force} lbf")


def middle(page: Page) -> str:
    """A force in the middle of what it should be."""
    low, high = (float(page.locator(".pair .value, .pair b").nth(i).inner_text().split()[0]) for i in (0, 1))
    return f"{(low + high) / 2:.1f}"


def test_a_squeal_said_on_the_phone_is_closed_by_a_retension(open_as: Any) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    page.get_by_role("button", name="Saw something at Steep-water pump").click()
    slip(page).get_by_role("button", name="Squeals at start").click()
    expect(slip(page).get_by_text("Kept: Squeals at start.")).to_be_visible()
    slip(page).get_by_role("textbox").fill("worse in the wet")
    slip(page).get_by_role("button", name="Add that").click()
    expect(page.locator("a.drive").filter(has_text="Steep-water pump")).to_contain_text("Squeals at start")
    page.reload()
    open_drive(page, "Steep-water pump", "Tension")
    expect(page.get_by_role("img", name=re.compile("Seen here: .*Squeals at start"))).to_be_visible()
    gauge(page, middle(page))
    page.get_by_text("The tension was set: this is how it was left").click()
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text("Does this put right Squeals at start?")).to_be_visible()
    page.get_by_role("button", name="Yes, close it").click()
    expect(page.get_by_text("Does this put right")).to_be_hidden()
    page.get_by_role("navigation", name="Stations").get_by_role("link", name="Log").click()
    page.get_by_role("button", name="Seen", exact=True).click()
    line = page.locator(".entries li").filter(has_text="Squeals at start")
    expect(line).to_contain_text(re.compile("closed .* by Ines: Kept\\. "))
    expect(line).to_contain_text("worse in the wet")
    line.get_by_role("button", name="Open it again").click()
    expect(page.locator(".open .now")).to_contain_text("Squeals at start")


def test_new_belts_fall_due_hours_bring_it_forward_and_the_second_reading_does_it(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Dust-collector fan", "Tension")
    page.get_by_role("button", name="Did something").click()
    slip(page).get_by_role("button", name="New belts, the whole set").click()
    slip(page).get_by_role("textbox", name="What went on").fill("3 × BX68 from one box")
    slip(page).get_by_role("button", name="glazed").click()
    slip(page).get_by_role("textbox", name="Hour meter").fill("500")
    slip(page).get_by_label("When").fill(f"{clock.now() - timedelta(days=1):%Y-%m-%dT%H:%M}")
    slip(page).get_by_role("button", name="Keep it").click()
    expect(slip(page).get_by_text("Set the tension again: new belts have settled")).to_be_visible()
    slip(page).get_by_role("button", name="That is all").click()
    page.locator(".open .now").click()
    due = slip(page).locator("li").filter(has_text="Set the tension again: new belts have settled")
    expect(due).to_contain_text("tomorrow")
    expect(due).to_contain_text(re.compile("Because the new set was fitted on .*: 24 running hours, about 2 days at 12 h a day"))
    slip(page).get_by_role("textbox", name="Hour meter now").fill("524")
    slip(page).get_by_role("button", name="Keep the hours").click()
    expect(slip(page).get_by_text("The meter stood at 524 h")).to_be_visible()
    expect(due).to_contain_text("today")
    page.keyboard.press("Escape")
    gauge(page, "9")
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text(re.compile("Done with it: .*Set the tension again: new belts have settled"))).to_be_visible()
    page.locator(".open .now").click()
    expect(slip(page).locator("li").filter(has_text="Read tension and alignment again")).to_be_visible()
    expect(due).to_be_hidden()


def test_an_oil_change_brings_the_belt_look(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Barley screener")
    page.get_by_role("button", name="Did something").click()
    slip(page).get_by_role("button", name="Oil changed").click()
    slip(page).get_by_role("textbox", name=re.compile("Changed again after")).fill("ninety")
    expect(slip(page).get_by_text("Write the hours as a number")).to_be_visible()
    slip(page).get_by_role("textbox", name=re.compile("Changed again after")).fill("90")
    slip(page).get_by_role("button", name="Keep it").click()
    expect(slip(page).get_by_text("Belt tension, sheaves and guards with the oil")).to_be_visible()
    slip(page).get_by_role("button", name="That is all").click()
    expect(page.locator(".open .now")).to_contain_text("Due today: Belt tension, sheaves and guards with the oil")
    page.locator(".open .now").click()
    look = slip(page).locator("li").filter(has_text="Belt tension, sheaves and guards with the oil")
    look.get_by_role("button", name="Done").click()
    expect(look).to_be_hidden()
    slip(page).get_by_role("button", name="Take that back").click()
    expect(look).to_be_visible()
    look.get_by_role("button", name="Done").click()
    expect(look).to_be_hidden()
    expect(slip(page).locator("li").filter(has_text="Change the oil")).to_contain_text("in 10 days")


def test_a_lead_moves_a_due_with_a_reason_and_rules_are_theirs(open_as: Any) -> None:
    page = open_as("Marta")
    open_drive(page, "Kiln exhaust fan")
    expect(page.locator(".open .now")).to_contain_text("Overdue by 1 day: Re-tension and gauge all five belts")
    page.locator(".open .now").click()
    due = slip(page).locator("li").filter(has_text="Re-tension and gauge all five belts")
    due.get_by_role("button", name="Move…").click()
    due.get_by_role("button", name="Move it").click()
    expect(due.get_by_text("Say why: who reads it next should know.")).to_be_visible()
    due.get_by_role("textbox", name="Why?").fill("kiln is cold on Friday")
    due.get_by_role("button", name="Move it").click()
    expect(due).to_contain_text("in 7 days")
    expect(due).to_contain_text("Moved: kiln is cold on Friday")
    page.goto("/floor")
    page.get_by_role("button", name="Settings").click()
    page.get_by_role("button", name="What falls due, and after what").click()
    rule = slip(page).locator("li").filter(has_text="Set the tension again: new belts have settled")
    rule.get_by_role("button", name="Change").click()
    slip(page).get_by_label("Running hours").fill("16")
    slip(page).get_by_role("button", name="Keep", exact=True).click()
    expect(rule).to_contain_text("16 running hours after: new set")
    expect(rule).to_contain_text("changed here")


def test_a_viewer_sees_it_all_and_changes_nothing(open_as: Any) -> None:
    page = open_as("Rowan")
    expect(page.get_by_role("button", name=re.compile("Saw something"))).to_have_count(0)
    open_drive(page, "Kiln exhaust fan")
    expect(page.get_by_role("button", name="Did something")).to_have_count(0)
    page.locator(".open .now").click()
    expect(slip(page).get_by_text("Late to come up on cold mornings")).to_be_visible()
    expect(slip(page).get_by_role("button", name=re.compile("Done|Move|Close…|I am on it"))).to_have_count(0)


def test_two_at_once_on_one_finding(open_as: Any) -> None:
    one, two = open_as("Ines"), open_as("Tobias")
    for page in (one, two):
        open_drive(page, "Kiln exhaust fan")
        page.locator(".open .now").click()
        expect(slip(page).get_by_text("Runs slow")).to_be_visible()
    mine, theirs = (slip(p).locator("li").filter(has_text="Runs slow") for p in (one, two))
    mine.get_by_role("button", name="I am on it").click()
    expect(mine).to_contain_text("Ines is on it")
    theirs.get_by_role("button", name="Close…").click()
    theirs.get_by_role("textbox").fill("set again")
    theirs.get_by_role("button", name="Close it").click()
    expect(theirs).to_contain_text("Ines is on it")
    expect(theirs.or_(slip(two).get_by_role("alert"))).to_be_visible()
