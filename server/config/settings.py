"""Django settings. What differs between machines comes from the environment; bin/ sets it."""

import os
from pathlib import Path

BASE_DIR = Path(__file__).resolve().parent.parent.parent
KEEL_HOME = Path(os.environ.get("KEEL_HOME", BASE_DIR / ".local"))
WEB_BUILD = Path(os.environ.get("KEEL_WEB_BUILD", KEEL_HOME / "web"))

DEBUG = os.environ.get("KEEL_DEBUG") == "1"
SECRET_KEY = os.environ.get("KEEL_SECRET_KEY") or (KEEL_HOME / "secret-key").read_text().strip()
ALLOWED_HOSTS = os.environ.get("KEEL_HOSTS", "localhost,127.0.0.1,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("KEEL_ORIGINS", "").split(",") if o]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "procrastinate.contrib.django",
    "server.workshop",
    "server.jobs",
    "server.bench",
    "server.slosh",
    "server.mount",
    "server.floor",
    "server.papers",
    "server.demo",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "server.http.middleware.BodyLimitMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "server.config.urls"
WSGI_APPLICATION = "server.config.wsgi.application"
TEMPLATES: list[dict[str, object]] = []

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": os.environ.get("KEEL_DB_NAME", "keel"),
        "USER": os.environ.get("KEEL_DB_USER", "keel"),
        "PASSWORD": os.environ.get("KEEL_DB_PASSWORD", ""),
        "HOST": os.environ.get("KEEL_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("KEEL_DB_PORT", "5432"),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {"connect_timeout": 3},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "workshop.Person"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
]

AXES_FAILURE_LIMIT = 6
AXES_COOLOFF_TIME = 0.25
"""Hours that a name stays locked for an address after too many wrong passwords."""
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_HTTP_RESPONSE_CODE = 429
AXES_LOCKOUT_CALLABLE = "server.http.errors.locked_out"
AXES_VERBOSE = False

SESSION_COOKIE_AGE = 14 * 24 * 3600
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_HTTPONLY = True
CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = os.environ.get("KEEL_HTTPS") == "1"
CSRF_FAILURE_VIEW = "server.http.errors.csrf_failure"

KEEL_BODY_LIMIT = 1_500_000
"""Largest request body [bytes]; a design is at most 1 000 000."""
KEEL_UPLOAD_LIMITS = {
    "/api/scans": 60_000_000,
    "/api/photos": 20_000_000,
    "/api/leak-tests/readings": 20_000_000,
    "/api/outline": 5_000_000,
    "/api/laps": 20_000_000,
    "/api/laps/look": 20_000_000,
    "/api/laps/trace": 20_000_000,
}
"""Addresses that take larger bodies [bytes]: files sent as they are."""
DATA_UPLOAD_MAX_MEMORY_SIZE = KEEL_BODY_LIMIT

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en-gb"
STATIC_URL = "/static/"
if WEB_BUILD.is_dir():
    WHITENOISE_ROOT = WEB_BUILD
    WHITENOISE_INDEX_FILE = True

TEST_RUNNER = "server.config.runner.CountingRunner"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": os.environ.get("KEEL_LOG_LEVEL", "WARNING")},
    "loggers": {name: {"level": "ERROR"} for name in ("django.request", "django.security.csrf", "axes")},
}
