"""How a device shows who it is, and how often it may."""

from django.http import HttpRequest
from ninja.security import HttpBearer
from ninja.throttling import AuthRateThrottle

from devices.models import Device


class Token(HttpBearer):
    """A device's token. The device is put on the request."""

    def authenticate(self, request: HttpRequest, token: str) -> Device | None:
        """The device this token belongs to."""
        device = Device.objects.filter(token_hash=Device.hash_of(token)).first()
        request.device = device  # type: ignore[attr-defined]
        return device


class DeviceThrottle(AuthRateThrottle):
    """Each device on its own: six requests a second."""

    def get_cache_key(self, request: HttpRequest) -> str:
        """By device."""
        return f"device-{request.device.pk}"  # type: ignore[attr-defined]
