"""Why a number is what it is: every figure shown to a cook can be asked for one of these."""

from dataclasses import KW_ONLY, dataclass


@dataclass(frozen=True)
class Reason:
    """The explanation that travels with a result.

    ``says`` is the sentence for the cook with the inputs filled in, ``rule`` the formula used,
    ``source`` where its constants come from and ``sure`` how far to trust it.
    """

    says: str
    rule: str
    source: str
    _: KW_ONLY
    sure: str
