"""The core's tests. One profile for all properties: a slow machine is no failure."""

from hypothesis import HealthCheck, settings

settings.register_profile("kitchen", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("kitchen")
