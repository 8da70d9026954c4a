"""The cache that several servers share. While it is away it is an empty one: what it remembers is
worked out again and nobody's requests are counted, but no cook waits for it."""

import logging
from typing import Any

from django.core.cache.backends.base import DEFAULT_TIMEOUT
from django.core.cache.backends.redis import RedisCache
from redis.exceptions import RedisError

_log = logging.getLogger(__name__)


class SharedCache(RedisCache):
    """Redis by ``CRUMB_REDIS_URL``."""

    def get(self, key: str, default: Any = None, version: int | None = None) -> Any:
        """What is kept under a key; ``default`` where there is nothing or nobody to ask."""
        try:
            return super().get(key, default, version)
        except RedisError as error:
            _log.warning("The cache is away: %s", error)
            return default

    def set(
        self, key: str, value: Any, timeout: Any = DEFAULT_TIMEOUT, version: int | None = None
    ) -> None:
        """Keep it, if there is somebody to keep it."""
        try:
            super().set(key, value, timeout, version)
        except RedisError as error:
            _log.warning("The cache is away: %s", error)
