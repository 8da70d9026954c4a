"""The core's front door: typed input and output for the command line and the web API alike."""

from bellcrumb.contract.kinds import KINDS, compute

__all__ = ["KINDS", "compute"]
