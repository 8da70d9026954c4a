"""A dessert built and its day: what the server may use of the planner."""

from bellcrumb.planner.builds import assembly_of, built, cut_of, whole
from bellcrumb.planner.day_asked import plain_key
from bellcrumb.planner.days import day as plan_of

__all__ = ["assembly_of", "built", "cut_of", "plain_key", "plan_of", "whole"]
