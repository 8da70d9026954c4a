"""The one error the core raises for input that makes no physical or culinary sense."""


class CraftError(ValueError):
    """Input that makes no sense in a kitchen.

    ``field`` is the path of the offending input (``lines[2]``, ``hot.temp_c``), ``message`` a
    sentence a cook understands.
    """

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field
        self.message = message
