"""The security log: one line for each thing that happened to who may come in."""

from uuid import UUID

from django.http import HttpRequest

from accounts.models import SecurityEvent, User

Kind = SecurityEvent.Kind
# Older lines than this many go when a new one comes.
MOST_LINES = 20_000


def address_of(request: HttpRequest) -> str:
    """Where a request comes from."""
    return str(request.META.get("REMOTE_ADDR", ""))[:45]


def note(
    request: HttpRequest,
    kind: SecurityEvent.Kind,
    *,
    kitchen_id: UUID | None = None,
    who: str | None = None,
    detail: str = "",
) -> None:
    """Write one line. ``who`` is the person it happened to; the asker when left out."""
    user = request.user
    said = who if who is not None else (user.email if isinstance(user, User) else "")
    line = SecurityEvent.objects.create(
        kind=kind, kitchen_id=kitchen_id, who=said[:254], address=address_of(request),
        detail=detail[:200],
    )  # fmt: skip
    if line.pk % 1000 == 0:
        old = SecurityEvent.objects.values_list("at", flat=True)[MOST_LINES : MOST_LINES + 1]
        if old:
            SecurityEvent.objects.filter(at__lte=old[0]).delete()
