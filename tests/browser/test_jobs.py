"""Jobs with gloves on, from what the machine is to the sign-off.

Blocks in and out again, a motor's bump, a tractor, a mower, a jammed line, a small blower, a double tap, nothing read, a signal lost in
the middle.
"""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import open_drive

SHOWN_MS = 600  # a step cannot be done before it has been shown this long


def begin(page: Page, machine: str, kind: str, asked: dict[str, str] | None = None, is_so: dict[str, bool] | None = None) -> None:
    """From Floor to the first step of a job; `is_so`: what is ticked or unticked of the machine."""
    page.locator("a.drive").filter(has_text=machine).click()
    page.get_by_role("link", name="Jobs", exact=True).click()
    row = page.get_by_role("listitem").filter(has=page.get_by_role("button", name=re.compile(f"^{kind}")))
    row.get_by_role("button", name=re.compile(f"^{kind}")).click()
    for question, said in (asked or {}).items():
        group = row.get_by_role("group", name=re.compile(question))
        group.get_by_role("button", name=said, exact=True).click()
    for question, so in (is_so or {}).items():
        row.get_by_role("checkbox", name=re.compile(question)).set_checked(so)
    row.get_by_role("button", name=re.compile("^Begin")).click()
    expect(page.locator("nav[aria-label=Steps]")).to_be_attached()


def words(page: Page) -> list[str]:
    """What every step says, as the list beside has them."""
    steps = page.locator("nav[aria-label=Steps] li > button:not(.out)")
    expect(steps.first).to_be_attached()
    return [" ".join(w.split()) for w in steps.all_text_contents()]


def forward(page: Page) -> None:
    """The step in hand done, or done without its reading."""
    page.get_by_role("button", name=re.compile("^(Done|Not measured)$")).click()


def work(page: Page, until: str = "", most: int = 80) -> dict[str, str]:
    """Do step after step until one is at hand (or all are done); the large numbers met on the way, by what was to do."""
    met: dict[str, str] = {}
    title = page.locator("main h1")
    expect(page.locator(".count")).to_be_visible()
    for _ in range(most):
        said = title.inner_text()
        if (until and until in said) or "sign it off" in said:
            return met
        number = page.locator(".number b")
        if number.count():
            met[said] = number.inner_text()
        place = page.locator(".count").inner_text()
        forward(page)
        expect(page.locator(".count")).not_to_have_text(place)
    raise AssertionError(f"“{until}” never came")


def leap(page: Page, until: str) -> None:
    """Done by another hand meanwhile: every step before the one that says so, over the API; then the page anew."""
    page.evaluate(
        """async until => {
        const id = location.pathname.split('/').pop()
        const token = (await (await fetch('/api/session')).json()).csrf_token
        const job = await (await fetch(`/api/jobs/${id}`)).json()
        const upto = until ? job.steps.findIndex(s => !s.standing && s.do.includes(until)) : job.steps.length
        for (const s of job.steps.slice(0, upto)) if (!s.standing)
          await fetch(`/api/jobs/${id}/steps`, { method: 'POST', body: JSON.stringify({ step: s.key, standing: 'done' }),
            headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token, 'Idempotency-Key': crypto.randomUUID() } })
        }""",
        until,
    )
    page.reload()
    expect(page.locator("main h1")).to_contain_text(until or "sign it off")


def sign_off(page: Page) -> None:
    page.get_by_role("button", name="Sign off").click()
    expect(page.get_by_role("heading", name="Signed off")).to_be_visible()


def number_of(met: dict[str, str], words: str) -> str:
    return next(n for said, n in met.items() if words in said)


def place(said: list[str], words: str, nth: int = 0) -> int:
    return [i for i, s in enumerate(said) if words in s][nth]


def test_a_belt_set_on_the_kiln_fan_has_its_blocks_out_again_and_the_station_s_own_number(open_as: Any) -> None:
    page = open_as("Tobias")
    jobs = page.get_by_role("complementary").get_by_role("list").first
    jobs.get_by_role("link", name=re.compile("Change a belt or set")).click()
    said = words(page)
    order = [
        "Stop the machine",
        "Open the disconnect",
        "dead stop",
        "Shut the dampers",
        "Press start",
        "Wedge timber",
        "Take the guard off",
    ]
    assert [place(said, w) for w in order] == sorted(place(said, w) for w in order)
    assert place(said, "Take the timber out") == place(said, "Turn the drive three rounds") - 1
    assert sum("Wedge timber" in s for s in said) == sum("Take the timber out" in s for s in said) == 3
    assert sum("Shut the dampers" in s for s in said) == sum("Set the dampers" in s for s in said) == 2
    leap(page, "Wait for a dead stop")
    work(page, "Wedge timber")
    leap(page, "Gauge every belt at mid-span")
    number = page.locator(".number b").inner_text()
    page.get_by_role("link", name=re.compile("Take the reading at tension")).click()
    page.locator("label").filter(has_text="New belts").first.click()
    low, high = number.removesuffix(" lbf").split(" to ")
    expect(page.get_by_text(re.compile(rf"It should show {low} lbf .* to {high} lbf"))).to_be_visible()
    for i in range(1, 6):
        page.locator(f"#f-force_{i}").fill(low)
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()
    page.go_back()
    expect(page.locator("main h1")).to_contain_text("Gauge every belt at mid-span")
    expect(page.get_by_role("button", name="Done", exact=True)).to_be_visible()
    leap(page, "")
    page.get_by_label("What came off").fill("five belts, glazed")
    sign_off(page)
    page.get_by_role("link", name="To the log").click()
    expect(page.locator(".entries .job").first).to_contain_text("Change a belt or set")


def test_a_motor_s_bump_on_the_kiln_fan_lets_go_and_locks_again(open_as: Any) -> None:
    page = open_as("Tobias")
    begin(page, "Kiln exhaust fan", "Change a motor")
    said = words(page)
    at = place(said, "Bump it")
    assert "Take every tool out" in said[at - 5] and "Take the timber out" in said[at - 4] and "takes off his own lock" in said[at - 1]
    after = [
        "Switch it off",
        "Open the disconnect",
        "dead stop",
        "Shut the dampers",
        "Release or block",
        "Press start",
        "Call for it",
        "Wedge timber",
    ]
    assert all(w in s for w, s in zip(after, said[at + 1 :], strict=False))
    leap(page, "Take every tool out")
    expect(page.locator(".job .say .small").first).to_contain_text("everybody clear")
    work(page, "Loosen the base bolts again")


def test_the_tractor_s_auger_is_asked_for_and_locked_out_as_one(open_as: Any) -> None:
    page = open_as("Tobias")
    begin(page, "Grain auger", "Change a belt or set", is_so={"roof, a ladder": True})
    said = words(page)
    for wanted in (
        "Disengage the power take-off",
        "Uncouple the drive shaft",
        "Chock the tractor",
        "Lower everything hydraulic",
        "Tie yourself off",
    ):
        place(said, wanted)
    assert place(said, "Couple the drive shaft") < place(said, "Take the chocks away") < place(said, "start it: lowest speed")
    assert not [s for s in said if "Open the disconnect" in s]


def test_a_walk_behind_mower_tipped_and_set_upright_on_a_phone_without_signal_in_the_middle(open_as: Any) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    page.get_by_role("link", name=re.compile("Change a mower.s belt")).click()
    met = work(page, "Stand it on hard")
    assert number_of(met, "to the quarter inch") == "1 × 4L310"

    def gone(route: Route) -> None:
        route.abort()

    page.route("**/api/jobs/*/steps", gone)
    work(page, "Throttle back")
    expect(page.locator(".waits")).to_contain_text("steps are kept on this device")
    page.reload()
    expect(page.locator("main h1")).to_contain_text("Throttle back"), "what was done without signal is still there"
    page.unroute("**/api/jobs/*/steps")
    page.evaluate("dispatchEvent(new Event('online'))")
    expect(page.locator(".waits")).to_have_count(0)
    page.reload()
    expect(page.locator("main h1")).to_contain_text("Throttle back")
    said = words(page)
    order = [
        "Run the engine outdoors",
        "Pull the lead off",
        "Take the belt off the transmission",
        "Tip it",
        "Wedge the blade",
        "Take the wood away",
        "Tighten the blade bolt",
        "set it upright",
        "back onto the transmission",
        "covers back",
        "lead back on the spark plug",
        "clutch out",
        "time the blade",
    ]
    assert [place(said, w) for w in order] == sorted(place(said, w) for w in order)
    leap(page, "closed up".capitalize()[:9])
    assert "3 s" in page.locator(".number").inner_text()
    leap(page, "")
    sign_off(page)


def test_a_jammed_drag_chain_is_not_run_to_find_out(open_as: Any) -> None:
    page = open_as("Tobias")
    begin(page, "Drag-chain conveyor", "Stopped drive: find out why")
    said = words(page)
    assert not [s for s in said if "Shut the feed" in s or "Press start" in s], (
        "it does not run, so nothing of it is run, and no start proves it dead"
    )
    order = [
        "Walk round it",
        "fuse, an overload",
        "Open the disconnect",
        "prove it dead",
        "Let the pull off slowly",
        "Block the sprocket",
        "Clamp both ends",
        "Take off the chain",
        "chain back on",
        "Take the clamps off",
    ]
    assert [place(said, w) for w in order] == sorted(place(said, w) for w in order)


def test_a_small_blower_on_the_phone(open_as: Any) -> None:
    page = open_as("Ines", width=390, height=844, touch=True)
    begin(page, "Laboratory air cooler", "Change a small blower")
    leap(page, "Set it slack")
    expect(page.locator(".job .say")).to_contain_text("eats the bushings")
    expect(page.locator(".number b")).to_be_visible()
    forward(page)


def test_a_double_tap_passes_one_step_and_an_early_one_takes_the_later_back(open_as: Any) -> None:
    page = open_as("Tobias")
    begin(page, "Roller mill", "Set the tension")
    expect(page.locator(".count")).to_contain_text("Step 1 of")
    page.wait_for_timeout(SHOWN_MS)
    page.get_by_role("button", name="Done", exact=True).dblclick()
    expect(page.locator(".count")).to_contain_text("Step 2 of")
    page.wait_for_timeout(SHOWN_MS)
    expect(page.locator(".count")).to_contain_text("Step 2 of")
    work(page, "Stop the machine")
    page.get_by_role("navigation", name="Steps").get_by_role("button", name=re.compile("Tell everyone")).click()
    page.get_by_role("button", name="Take it back").click()
    page.get_by_role("button", name=re.compile("Take back this step and")).click()
    expect(page.locator("main h1")).to_contain_text("Tell everyone")
    expect(page.get_by_role("button", name="Done", exact=True)).to_be_visible()
    page.reload()
    expect(page.locator("main h1")).to_contain_text("Tell everyone")


def test_a_job_signed_off_without_a_reading_says_so_on_the_floor(open_as: Any) -> None:
    page = open_as("Ines")
    begin(page, "Steep-water pump", "Change a belt or set")
    leap(page, "Read the tension as found")
    expect(page.get_by_role("button", name="Not measured")).to_be_visible()
    page.get_by_role("button", name="Note", exact=True).click()
    page.get_by_label("What to keep with this step").fill("gauge is at the works")
    forward(page)
    leap(page, "")
    end = page.locator(".end")
    expect(end).to_contain_text("Not measured")
    sign_off(page)
    expect(end).to_contain_text("Read the tension of the new set: nobody did")
    expect(end).to_contain_text("gauge is at the works")
    page.get_by_role("navigation", name="Places").get_by_role("link", name="Floor").click()
    wants = page.locator("section").filter(has=page.get_by_role("heading", name=re.compile("attention")))
    expect(wants.locator("a.drive").filter(has_text="Steep-water pump")).to_contain_text("nobody did")


def test_a_leather_belt_with_hooks(open_as: Any) -> None:
    page = open_as("Marta")
    asked = {"joined": "metal hooks", "endless": "joined in place", "stretched round": "no: cut short by the table"}
    begin(page, "Workshop lathe", "Cut and join a flat belt", asked)
    said = words(page)
    assert place(said, "Square both ends") < place(said, "Cut it to length") < place(said, "Mesh the loops")
    leap(page, "Cut it to length")
    met = work(page, "Press one row")
    assert number_of(met, "Cut it to length").endswith("in") and number_of(met, "Choose the hooks") == "D", (
        "a 5.2 mm belt: size D of the table"
    )


def test_a_chain_joined_and_a_step_skipped_with_its_reason(open_as: Any) -> None:
    page = open_as("Tobias")
    begin(page, "Drag-chain conveyor", "Cut, join or change a chain", {"joined": "spring clip link", "odd": "no: even"})
    leap(page, "Press start")
    page.get_by_role("button", name="Can’t do it").click()
    page.get_by_placeholder("Why can it not be done?").fill("control removed for repair")
    page.get_by_role("button", name="Skip", exact=True).click()
    expect(page.locator("main h1")).not_to_contain_text("Press start")
    leap(page, "Count the pitches")
    expect(page.locator(".number b")).to_have_text("92")
    leap(page, "")
    expect(page.get_by_text("control removed for repair")).to_be_visible()
    page.get_by_role("button", name="Sign off").click()
    expect(page.get_by_text(re.compile("or write why it is open"))).to_be_visible()
    page.get_by_label(re.compile("Why is it open")).fill("drive dead at the isolator, shown to the lead")
    sign_off(page)
    expect(page.get_by_text("Open with a reason: drive dead")).to_be_visible()


@pytest.mark.parametrize("state", ["Machine isolated", "Machine running, guard on"])
def test_a_step_of_ones_own_says_how_the_machine_is_for_it(open_as: Any, state: str) -> None:
    page = open_as("Ines")
    begin(page, "Overhead sack conveyor", "Re-grease the overhead")
    page.get_by_role("button", name="Add a step for this machine").click()
    page.get_by_label("What to do").fill("Hang the sign at the loading point.")
    page.get_by_label(state).check()
    page.get_by_role("button", name="Save", exact=True).click()
    steps = page.get_by_role("navigation", name="Steps")
    expect(steps).to_contain_text("Hang the sign at the loading point. (this machine’s own)")
    said = words(page)
    own = place(said, "Hang the sign")
    if state == "Machine isolated":
        assert own > place(said, "Press start")
    else:
        assert own == place(said, "Shut the feed") + 1, "behind the step at which it runs next"


def test_a_due_starts_its_job_in_one_tap_and_shows_what_the_machine_is_taken_to_be(open_as: Any) -> None:
    page = open_as("Tobias")
    open_drive(page, "Roller mill", "Tension")
    page.get_by_role("button", name=re.compile("all that is open")).click()
    line = page.get_by_role("listitem").filter(has_text="Set the tension again")
    line.get_by_role("button", name="Start its job").click()
    expect(page.get_by_text("Look again after the first day")).to_be_visible()
    expect(page.locator("main h1")).to_contain_text("what this job takes the machine to be")
    expect(page.locator(".number b")).to_contain_text("its dust can burn")


SESSION = """async name => {
    const session = await (await fetch('/api/session')).json()
    const site = session.sites[0].id
    const people = await (await fetch(`/api/sites/${site}/people`)).json()
    const who = people.people.find(p => p.name === name).id
    for (const s of people.sessions.filter(s => s.person_id === who))
      await fetch(`/api/sites/${site}/sign-ins/${s.id}/end`, { method: 'POST', body: '{}',
        headers: { 'Content-Type': 'application/json', 'X-CSRFToken': session.csrf_token, 'Idempotency-Key': crypto.randomUUID() } })
    }"""


def three_without_signal(page: Page) -> list[str]:
    """A job of the roller mill with its first three steps said while nothing comes through; what they were."""
    begin(page, "Roller mill", "Set the tension")
    page.route("**/api/jobs/*/steps", lambda route: route.abort())
    said = words(page)[:3]
    for n in range(3):
        expect(page.locator(".count")).to_contain_text(f"Step {n + 1} of")
        forward(page)
    expect(page.locator(".waits")).to_contain_text("3 steps are kept on this device")
    return said


def all_sent(page: Page) -> None:
    page.wait_for_function("() => !Object.keys(localStorage).some(key => key.startsWith('tuyere-said-'))")


def done_by(page: Page) -> list[tuple[str, str]]:
    """Who did the steps of the job in hand, by the record."""
    job = page.evaluate("async () => (await fetch('/api' + location.pathname)).json()")
    return [(" ".join(s["do"].split()), s["who"]) for s in job["steps"] if s["standing"]]
