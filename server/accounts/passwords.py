"""What a password has to be, wherever somebody chooses one."""

import re

from django.core.exceptions import ValidationError

from accounts.models import User
from bellcrumb.words import say

LEAST_LONG = 12
# zxcvbn's scale: below 3 a list of words and patterns finds it within 10^8 guesses.
LEAST_SCORE = 3
LEAST_BESIDES = 6  # characters that are not of one's own name or address
MOST_LOOKED_AT = 72  # the rest can only make it harder


class NotGuessed:
    """Refuses what is short, and what patterns, common passwords and one's own name find soon."""

    def validate(self, password: str, user: User | None = None) -> None:
        """Raise ValidationError with the sentence."""
        # Loaded for who chooses one: its lists of words are no small thing.
        from zxcvbn import zxcvbn

        if len(password) < LEAST_LONG:
            raise ValidationError(say("accounts.this_password_is_too_short", least=LEAST_LONG))
        own = re.findall(r"[^\W_]{3,}", f"{user.name} {user.email}".lower()) if user else []
        looked_at = password[:MOST_LOOKED_AT]
        besides = re.sub("|".join([*own, r"[\s._@-]"]), "", looked_at.lower())
        found = zxcvbn(looked_at, user_inputs=own)
        if found["score"] < LEAST_SCORE or len(besides) < LEAST_BESIDES:
            raise ValidationError(say("accounts.this_password_is_soon_guessed"))

    def get_help_text(self) -> str:
        """The rule in a sentence, as Django's own forms and commands ask for it."""
        return str(say("accounts.this_password_is_too_short", least=LEAST_LONG))
