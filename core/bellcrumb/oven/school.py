"""The schools of doneness: what a cook looks for, and what is done with the custard afterwards."""

from typing import Literal

from bellcrumb.texture.families import Doneness

After = Literal["rack", "in_bath", "ice", "oven_off"]
SCHOOLS: tuple[Doneness, ...] = ("wobble", "domed", "just_set", "clean_knife")

SIGNS: dict[Doneness, str] = {
    "wobble": "The edge is set and the middle trembles like one piece, a disc the size of a coin.",
    "domed": "The rim has puffed and domed, the middle still wobbles.",
    "just_set": "Nothing wobbles any more; a touch on the mould makes it shiver as a whole.",
    "clean_knife": "A knife in the middle comes out clean: the older school, near the edge of "
    "too far.",
}
AFTERS: dict[After, str] = {
    "rack": "on a rack",
    "in_bath": "left in its water out of the oven",
    "ice": "in ice water",
    "oven_off": "in the oven switched off, its door ajar",
}
