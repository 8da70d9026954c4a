"""The core's tests. One profile for all properties: a slow machine is no failure."""

from hypothesis import settings

settings.register_profile("kitchen", deadline=None)
settings.load_profile("kitchen")
