"""Authorisation: every route carries a rule; a route without one is refused."""

import uuid
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, TypeVar

from flask import Flask, g, request
from flask_login import current_user

from tuyere.store import drives, dues, findings, found, jobs, people, photos, rounds, shop_lists, what_ifs
from tuyere.store.people_tables import Role
from tuyere.web.errors import Refusal
from tuyere.web.state import reading

View = TypeVar("View", bound=Callable[..., Any])
SiteFinder = Callable[[uuid.UUID], uuid.UUID | people.SiteId]


@dataclass(frozen=True)
class Rule:
    """Who may call a route: anyone, anybody signed in, or a role at the site found from a path value; `computes`: it stores nothing;
    `half_in`: somebody who still has to choose a passphrase of their own, or to show a second factor, may too."""

    who: str
    role: Role | None = None
    path_value: str = ""
    find_site: SiteFinder | None = None
    computes: bool = False
    half_in: bool = False


def _mark(rule: Rule) -> Callable[[View], View]:
    def decorate(view: View) -> View:
        view.rule = rule  # type: ignore[attr-defined]
        return view

    return decorate


def anyone() -> Callable[[View], View]:
    """No sign-in wanted."""
    return _mark(Rule("anyone"))


def computes() -> Callable[[View], View]:
    """No sign-in and no token wanted: a calculation, which reads no cookie's rights and stores nothing."""
    return _mark(Rule("anyone", computes=True))


def signed_in(half_in: bool = False) -> Callable[[View], View]:
    """Anybody signed in; `half_in`: what it takes to be in wholly."""
    return _mark(Rule("signed in", half_in=half_in))


def at_site(role: Role) -> Callable[[View], View]:
    """`role` at the site in the path."""
    return _mark(Rule("role", role, "site_id", lambda site_id: site_id))


def at_site_of_drive(role: Role) -> Callable[[View], View]:
    """`role` at the site of the drive in the path."""
    return _mark(Rule("role", role, "drive_id", drives.site_of_drive))


def at_site_of_reading(role: Role) -> Callable[[View], View]:
    """`role` at the site of the reading in the path."""
    return _mark(Rule("role", role, "reading_id", drives.site_of_reading))


def at_site_of_slip(role: Role) -> Callable[[View], View]:
    """`role` at the site of the counter slip in the path."""
    return _mark(Rule("role", role, "slip_id", found.site_of_slip))


def at_site_of_fix(role: Role) -> Callable[[View], View]:
    """`role` at the site of the get-home fix in the path."""
    return _mark(Rule("role", role, "fix_id", found.site_of_fix))


def at_site_of_what_if(role: Role) -> Callable[[View], View]:
    """`role` at the site of the what-if in the path."""
    return _mark(Rule("role", role, "what_if_id", what_ifs.site_of_what_if))


def at_site_of_shop_list(role: Role) -> Callable[[View], View]:
    """`role` at the site of the shop's list in the path."""
    return _mark(Rule("role", role, "list_id", shop_lists.site_of_list))


def at_site_of_finding(role: Role) -> Callable[[View], View]:
    """`role` at the site of the finding in the path."""
    return _mark(Rule("role", role, "finding_id", findings.site_of_finding))


def at_site_of_photo(role: Role) -> Callable[[View], View]:
    """`role` at the site of the photograph in the path."""
    return _mark(Rule("role", role, "photo_id", photos.site_of_photo))


def at_site_of_round(role: Role) -> Callable[[View], View]:
    """`role` at the site of the round in the path."""
    return _mark(Rule("role", role, "round_id", rounds.site_of_round))


def at_site_of_job(role: Role) -> Callable[[View], View]:
    """`role` at the site of the job in the path."""
    return _mark(Rule("role", role, "job_id", jobs.site_of_job))


def at_site_of_due(role: Role) -> Callable[[View], View]:
    """`role` at the site of the promise in the path."""
    return _mark(Rule("role", role, "due_id", dues.site_of_due))


def at_site_of_happened(role: Role) -> Callable[[View], View]:
    """`role` at the site of what was done, in the path."""
    return _mark(Rule("role", role, "happened_id", dues.site_of_happened))


def at_site_of_machine(role: Role) -> Callable[[View], View]:
    """`role` at the site of the machine in the path."""
    return _mark(Rule("role", role, "machine_id", dues.site_of_machine))


# Whose a request is, as the page has it: what one person did on a device is never taken as another's who signed in there since.
FOR_PERSON = "Tuyere-Person"
ANOTHER = "Somebody else is signed in on this device now. What was done here before is kept for who did it."


FIRST = {
    "choose": "Your passphrase was chosen by somebody else. Choose your own first.",
    "show": "Show your second factor first.",
    "add": "Leads of this site need a second factor. Add one first.",
}


def rule_of(app: Flask, endpoint: str) -> Rule | None:
    """The rule of an endpoint, or None."""
    return getattr(app.view_functions[endpoint], "rule", None)


def install(app: Flask) -> None:
    """Check the rule before every request."""

    @app.before_request
    def check() -> None:
        if request.endpoint is None:
            return
        rule = rule_of(app, request.endpoint)
        if rule is None:
            raise Refusal(403)
        if rule.who == "anyone":
            return
        if not current_user.is_authenticated:
            raise Refusal(401)
        if request.headers.get(FOR_PERSON, str(current_user.id)) != str(current_user.id):
            raise Refusal(401, ANOTHER)
        if current_user.must and not rule.half_in:
            raise Refusal(403, FIRST[current_user.must])
        if rule.role and rule.find_site:
            _check_role(rule)


def _check_role(rule: Rule) -> None:
    """A site one does not belong to is not there at all (404); too small a role is refused (403)."""
    assert rule.role and rule.find_site
    try:
        subject = uuid.UUID(str((request.view_args or {}).get(rule.path_value)))
    except ValueError:
        raise Refusal(404) from None
    with reading() as session:
        found = people.role_at(session, current_user.id, rule.find_site(subject))
    if found is None:
        raise Refusal(404)
    site_id, held = found
    if not held.covers(rule.role):
        raise Refusal(403)
    g.site_id = site_id
