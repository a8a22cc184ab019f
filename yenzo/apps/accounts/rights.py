"""Who may call which service: an actor comes in, the service runs or is refused. docs/rights.md shows the table."""

import functools
from collections.abc import Callable
from dataclasses import dataclass
from typing import Concatenate, ParamSpec, TypeVar

from django.core.exceptions import PermissionDenied

from yenzo.apps.accounts.models import Person, Role
from yenzo.apps.accounts.request_guard import is_safe_request

CUSTOMER = "customer"
SYSTEM = "system"
ALL_ROLES: tuple[str, ...] = (*Role.values, CUSTOMER, SYSTEM)
SELLERS = (Role.OWNER, Role.SELLER)
DESK = (Role.OWNER, Role.SELLER, Role.DESK)
STAFF = tuple(Role.values)
# Whose eyes things are for: makers see neither where goods go nor what they cost.
SEES_ADDRESSES = (Role.OWNER, Role.DESK)
SEES_PRICES = DESK

Arguments = ParamSpec("Arguments")
Result = TypeVar("Result")


@dataclass(frozen=True)
class Actor:
    """Who does something: a member of staff, a customer, or the program itself."""

    role: str
    name: str
    person: Person | None = None

    @property
    def member(self) -> Person:
        """The member of staff who acts; raises PermissionDenied for anybody else."""
        if self.person is None:
            raise PermissionDenied("Only a member of the workshop's staff can do this. Please sign in.")
        return self.person


SYSTEM_ACTOR = Actor(SYSTEM, "Yenzo")
SERVICES: dict[str, tuple[Callable[..., object], frozenset[str]]] = {}


def actor_of(person: object) -> Actor:
    """Return the actor for a request's user."""
    return Actor(person.role, str(person), person) if isinstance(person, Person) else Actor(CUSTOMER, "Customer")


def service(
    *roles: str,
) -> Callable[[Callable[Concatenate[Actor, Arguments], Result]], Callable[Concatenate[Actor, Arguments], Result]]:
    """Make a function a service that only these roles may call; the actor is its first argument."""

    def decorate(
        function: Callable[Concatenate[Actor, Arguments], Result],
    ) -> Callable[Concatenate[Actor, Arguments], Result]:
        allowed = frozenset(roles)

        @functools.wraps(function)
        def guarded(actor: Actor, /, *args: Arguments.args, **kwargs: Arguments.kwargs) -> Result:
            if is_safe_request.get():
                raise PermissionDenied("Looking at an address changes nothing. Please use the button of the page.")
            if actor.role not in allowed:
                raise PermissionDenied(f"As {actor.role} you can't do this. Please ask the owner of the workshop.")
            return function(actor, *args, **kwargs)

        app = function.__module__.split(".")[2]
        SERVICES[f"{app}.{function.__name__}"] = (guarded, allowed)
        return guarded

    return decorate
