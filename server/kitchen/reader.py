"""Whoever reads an answer reads it in their own units: here what was said is closed."""

from collections.abc import Callable
from typing import cast

from django.http import HttpRequest, HttpResponse

from accounts.models import User
from bellcrumb.words import OPEN, Units, closed
from kitchen.models import Member

NARROW = "\N{NARROW NO-BREAK SPACE}"  # on a screen a number and its unit stay on one line


def units_of(request: HttpRequest) -> Units:
    """The units of whoever asks, in the kitchen they ask about (or the first of theirs)."""
    user = getattr(request, "user", None)
    if not isinstance(user, User):
        return "metric"
    match = request.resolver_match
    kitchen = match.kwargs.get("kid") if match else None
    theirs = Member.objects.filter(user=user, **({"kitchen_id": kitchen} if kitchen else {}))
    return cast(Units, theirs.order_by("pk").values_list("units", flat=True).first() or "metric")


class ReaderMiddleware:
    """Closes what an answer says. A file that is taken away belongs to nobody: it is metric."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Pass on, and write the quantities out on the way back."""
        response = self.get_response(request)
        if not response.streaming and OPEN.encode() in response.content:
            file = "Content-Disposition" in response.headers
            said = response.content.decode()
            text = closed(said) if file else closed(said, units_of(request), NARROW)
            response.content = text.encode()
        return response
