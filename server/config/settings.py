"""Settings. What differs between machines comes from the environment, set by ./crumb."""

import json
import os
from pathlib import Path

from csp.constants import NONE, SELF, UNSAFE_INLINE

ROOT = Path(__file__).resolve().parents[2]
HOME = Path(os.environ.get("CRUMB_HOME", ROOT / "var"))


def _secrets() -> dict[str, str]:
    """Secrets made at first start; empty where there are none (a container gets its own)."""
    path = HOME / "secrets.json"
    return dict(json.loads(path.read_text())) if path.exists() else {}


_SECRETS = _secrets()
# No fallback: without one of the two Django refuses to start.
SECRET_KEY = os.environ.get("CRUMB_SECRET_KEY") or _SECRETS.get("django", "")
DEBUG = False
ALLOWED_HOSTS = os.environ.get("CRUMB_HOSTS", "127.0.0.1,localhost").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("CRUMB_ORIGINS", "").split(",") if o]

# How many proxies of our own stand before the application (0: none): what they say is believed.
# How long a heavy ask waits for its turn, and how long it may work: seconds.
PATIENCE_S = float(os.environ.get("CRUMB_PATIENCE_S", "3"))
MOST_WORK_S = float(os.environ.get("CRUMB_MOST_WORK_S", "2"))
PROXIES = int(os.environ.get("CRUMB_PROXIES", "0"))
TLS = bool(os.environ.get("CRUMB_TLS"))
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = TLS
SECURE_HSTS_SECONDS = int(os.environ.get("CRUMB_HSTS_SECONDS", "0"))
if PROXIES:
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "ninja",
    "accounts",
    "kitchen",
    "formulas",
    "batches",
    "devices",
    "rehearsals",
    "days",
    "demo",
]
MIDDLEWARE = [
    "shared.edge.EdgeMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "shared.failures.DatabaseAwayMiddleware",
    "kitchen.reader.ReaderMiddleware",
    "axes.middleware.AxesMiddleware",
    "shared.edge.AgainMiddleware",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "web" / "dist"],
        "OPTIONS": {"context_processors": []},
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": os.environ.get("CRUMB_DB_NAME", "bellcrumb"),
        "USER": os.environ.get("CRUMB_DB_USER", "bellcrumb"),
        "PASSWORD": os.environ.get("CRUMB_DB_PASSWORD", _SECRETS.get("db", "")),
        # A path is a socket of this machine, a name another machine.
        "HOST": os.environ.get("CRUMB_DB_HOST")
        or os.environ.get("CRUMB_DB_SOCKET", str(HOME / "run" / "db.sock")),
        "PORT": os.environ.get("CRUMB_DB_PORT", ""),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "isolation_level": "read committed",
            "init_command": "SET sql_mode='STRICT_TRANS_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE,"
            "ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION', time_zone='+00:00'",
            "connect_timeout": 3,
        },
        "TEST": {
            "CHARSET": "utf8mb4",
            "COLLATION": "utf8mb4_uca1400_as_ci",
            "NAME": os.environ.get("CRUMB_TEST_DB"),
        },
    }
}
# The store keeps what is remembered for a while, or a Redis that several servers share.
_REDIS = os.environ.get("CRUMB_REDIS_URL")
CACHES = {
    "default": {
        "BACKEND": "shared.cache.SharedCache",
        "LOCATION": _REDIS,
        "TIMEOUT": 3600,
        "OPTIONS": {"socket_connect_timeout": 1.0, "socket_timeout": 1.0},
    }
    if _REDIS
    else {
        "BACKEND": "django.core.cache.backends.db.DatabaseCache",
        "LOCATION": "cache",
        "TIMEOUT": 3600,
        "OPTIONS": {"MAX_ENTRIES": 20_000},
    },
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
AUTH_PASSWORD_VALIDATORS = [{"NAME": "accounts.passwords.NotGuessed"}]
AXES_FAILURE_LIMIT = 6
AXES_COOLOFF_TIME = 0.1  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
# One address that tries many accounts is slowed before it has tried them all.
SPRAY_ACCOUNTS = 8
AXES_VERBOSE = False
# The name authenticate() is called with; axes would guess the model's field and never lock anyone.
AXES_USERNAME_FORM_FIELD = "username"
AXES_LOCKOUT_CALLABLE = "shared.failures.locked_out"

SESSION_COOKIE_AGE = 14 * 24 * 3600
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "worker-src": [SELF],
        # The primitives position popovers with style attributes; no script is ever inline.
        "style-src": [SELF, UNSAFE_INLINE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 512 * 1024

LANGUAGE_CODE = "en"
USE_I18N = False
TIME_ZONE = "UTC"
USE_TZ = True

STATIC_URL = "/static/"
STATIC_ROOT = Path(os.environ.get("CRUMB_STATIC", HOME / "static"))
STATICFILES_DIRS = [ROOT / "web" / "dist"] if (ROOT / "web" / "dist").exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
# Vite puts a content hash in every asset's name.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+-[A-Za-z0-9_-]{8,}\.(js|css|woff2)$"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # What was refused is the asker's business (and in the security log), not a warning of ours.
    "loggers": {
        "django.request": {"level": "CRITICAL"},
        "django.security.DisallowedHost": {"level": "CRITICAL"},
        "axes": {"level": "ERROR"},
    },
}
