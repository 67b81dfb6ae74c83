"""Jobs with gloves on: six of them from lock-out to sign-off, the stations' numbers at their steps, and a signal lost in the middle."""

import re
from typing import Any

from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import open_drive


def begin(page: Page, machine: str, kind: str, asked: dict[str, str] | None = None) -> None:
    """From Floor to the first step of a job."""
    page.locator("a.drive").filter(has_text=machine).click()
    page.get_by_role("link", name="Jobs", exact=True).click()
    row = page.get_by_role("listitem").filter(has=page.get_by_role("button", name=re.compile(f"^{kind}")))
    row.get_by_role("button", name=re.compile(f"^{kind}")).click()
    for question, said in (asked or {}).items():
        group = row.get_by_role("group", name=re.compile(question))
        group.get_by_role("button", name=said).click()
    row.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_role("navigation", name="Steps")).to_be_attached()


def work(page: Page, until: str = "", most: int = 45) -> dict[str, str]:
    """Do step after step until one is at hand (or all are done); the large numbers met on the way, by what was to do."""
    met: dict[str, str] = {}
    title = page.locator("main h1")
    for _ in range(most):
        said = title.inner_text()
        if (until and until in said) or "sign it off" in said:
            return met
        number = page.locator(".number b")
        if number.count():
            met[said] = number.inner_text()
        page.get_by_role("button", name="Done", exact=True).click()
        expect(title).not_to_have_text(said)
    raise AssertionError(f"“{until}” never came")


def sign_off(page: Page) -> None:
    page.get_by_role("button", name="Sign off").click()
    expect(page.get_by_role("heading", name="Signed off")).to_be_visible()


def number_of(met: dict[str, str], words: str) -> str:
    return next(n for said, n in met.items() if words in said)


def test_a_belt_set_on_the_kiln_fan_with_the_tension_station_s_own_number(open_as: Any) -> None:
    page = open_as("Tobias")
    jobs = page.get_by_role("complementary").get_by_role("list").first
    jobs.get_by_role("link", name=re.compile("Change a belt or set")).click()
    expect(page.locator("main h1")).to_have_text("Wait until everything stands."), "it goes on where it stopped yesterday"
    met = work(page, "Gauge it at mid-span")
    assert number_of(met, "Lay the whole new set") == "5 × C144"
    number = page.locator(".number b").inner_text()
    page.get_by_role("link", name=re.compile("Take the reading at tension")).click()
    page.locator("label").filter(has_text="New belts").first.click()
    low, high = number.removesuffix(" lbf").split(" to ")
    expect(page.get_by_text(re.compile(rf"It should show {low} lbf .* to {high} lbf"))).to_be_visible()
    page.go_back()
    expect(page.locator("main h1")).to_contain_text("Gauge it at mid-span")
    work(page)
    expect(page.get_by_label(re.compile("Too slack|Slack"))).to_be_checked()
    page.get_by_label("What came off").fill("five belts, glazed")
    sign_off(page)
    page.get_by_role("link", name="To the log").click()
    expect(page.locator(".entries .job").first).to_contain_text("Change a belt or set")
    page.get_by_role("button", name=re.compile("all that is open")).click()
    expect(page.locator("li.line").filter(has_text="new belts have settled")).to_be_visible()


def test_a_mower_s_traction_belt_on_a_phone_without_signal_in_the_middle(open_as: Any) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    page.get_by_role("link", name=re.compile("Change a mower.s belt")).click()
    met = work(page, "Run or siphon the tank")
    assert number_of(met, "to the quarter inch") == "1 × 4L310"

    def gone(route: Route) -> None:
        route.abort()

    page.route("**/api/jobs/*/steps", gone)
    work(page, "Belt covers off")
    expect(page.locator(".waits")).to_contain_text("steps are kept on this device")
    page.reload()
    expect(page.locator("main h1")).to_contain_text("Belt covers off"), "what was done without signal is still there"
    page.unroute("**/api/jobs/*/steps")
    page.evaluate("dispatchEvent(new Event('online'))")
    expect(page.locator(".waits")).to_have_count(0)
    page.reload()
    expect(page.locator(".count")).to_contain_text("6 of 29")
    work(page)
    page.get_by_role("button", name=re.compile("steps, show all")).click()
    said = " ".join(page.get_by_role("navigation", name="Steps").get_by_role("listitem").all_inner_texts())
    assert said.index("take the belt off the transmission") < said.index("Tip it") < said.index("belt back onto the transmission")
    page.get_by_role("button", name=re.compile("steps, show all")).click()
    sign_off(page)


def test_a_leather_belt_with_hooks(open_as: Any) -> None:
    page = open_as("Marta")
    begin(
        page,
        "Workshop lathe",
        "Cut and join a flat belt",
        {"joined": "metal hooks", "endless": "joined in place", "stretched round": "no: cut short"},
    )
    met = work(page)
    assert number_of(met, "Choose hooks") == "D", "a 5.2 mm belt: size D of the table"
    assert number_of(met, "Cut it to length").endswith("in")
    keys = list(met)
    assert keys.index(next(k for k in keys if k.startswith("Square both ends"))) < keys.index(
        next(k for k in keys if k.startswith("Cut it"))
    )
    sign_off(page)


def test_a_chain_joined_and_a_step_passed_over_with_its_reason(open_as: Any) -> None:
    page = open_as("Tobias")
    begin(page, "Drag-chain conveyor", "Cut, join or change a chain", {"joined": "spring clip link", "odd": "no: even"})
    work(page, "Try to start it")
    page.get_by_role("button", name="Cannot…").click()
    page.get_by_placeholder("Why is it passed over?").fill("control removed for repair")
    page.get_by_role("button", name="Pass over").click()
    met = work(page)
    assert number_of(met, "Count the pitches") == "92" and "clockwise" in number_of(met, "Connecting link in")
    expect(page.get_by_text("control removed for repair")).to_be_visible()
    page.get_by_role("button", name="Sign off").click()
    expect(page.get_by_text(re.compile("or write why it is open"))).to_be_visible()
    page.get_by_label(re.compile("Why is it open")).fill("drive dead at the isolator, shown to the lead")
    sign_off(page)
    expect(page.get_by_text("Open with a reason: drive dead")).to_be_visible()


def test_link_belting(open_as: Any) -> None:
    page = open_as("Ines")
    begin(page, "Sack roller conveyor", "Fit link belting")
    met = work(page)
    assert re.fullmatch(r"\d+", number_of(met, "two tabs overlap")), "so many links, hand-tight"
    sign_off(page)


def test_the_dog_chain_re_greased_with_a_step_of_ones_own(open_as: Any) -> None:
    page = open_as("Ines")
    begin(page, "Overhead sack conveyor", "Re-grease the overhead")
    page.get_by_role("button", name="Add a step for this machine").click()
    page.get_by_label("What to do").fill("Hang the sign at the loading point.")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_role("navigation", name="Steps")).to_contain_text("Hang the sign at the loading point. (this machine’s own)")
    work(page, "Hang the sign")
    met = work(page)
    assert number_of(met, "Measure the dogs").startswith("6.0")
    sign_off(page)


def test_a_due_starts_its_job_in_one_tap(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Roller mill", "Tension")
    page.get_by_role("button", name=re.compile("all that is open")).click()
    line = page.get_by_role("listitem").filter(has_text="Set the tension again")
    line.get_by_role("button", name="Start its job").click()
    expect(page.get_by_text("Look again after the first day")).to_be_visible()
    expect(page.locator("main h1")).to_contain_text("look and listen from outside the guard")
