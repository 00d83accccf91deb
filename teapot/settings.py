"""Settings.  Strict from the start; what differs between places is an environment
variable that begins with ``TEAPOT_``.

==================  ==========================================================
TEAPOT_DATA         folder of the database and the secret key (``var``)
TEAPOT_HOSTS        host names served, with commas between
TEAPOT_HTTPS        1 where the server is reached over HTTPS
TEAPOT_EVALUATORS   evaluator processes (4)
==================  ==========================================================
"""

import os
from contextlib import suppress
from pathlib import Path

from csp.constants import NONE, SELF
from django.core.management.utils import get_random_secret_key

ROOT = Path(__file__).resolve().parent.parent
DATA = Path(os.environ.get("TEAPOT_DATA", ROOT / "var"))
DATA.mkdir(parents=True, exist_ok=True)


def _secret_key() -> str:
    """The key of this installation, made at its first start: of processes that start together
    the first one's, whole before anybody reads it."""
    file = DATA / "secret-key"
    if not file.exists():
        made = DATA / f"secret-key-{os.getpid()}"
        made.touch(mode=0o600)
        made.write_text(get_random_secret_key())
        with suppress(FileExistsError):
            os.link(made, file)
        made.unlink()
    return file.read_text()


SECRET_KEY = _secret_key()
DEBUG = False
ALLOWED_HOSTS = os.environ.get("TEAPOT_HOSTS", "127.0.0.1,localhost").split(",")
HTTPS = os.environ.get("TEAPOT_HTTPS") == "1"
TEAPOT_EVALUATORS = int(os.environ.get("TEAPOT_EVALUATORS", "4"))

INSTALLED_APPS = [
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "django_htmx",
    "csp",
    "accounts",
    "console",
    "handbook",
    "procedures",
    "records",
    "shelf",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "shelf.bounds.refuse_large",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "accounts.clock.local_time",
]

ROOT_URLCONF = "teapot.urls"
WSGI_APPLICATION = "teapot.wsgi.application"

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "teapot" / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "teapot.sqlite3",
        "CONN_MAX_AGE": None,
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            # A line that was answered is on the disk: WAL with a sync at each commit.
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;",
        },
        "TEST": {"NAME": DATA / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"

STATIC_URL = "static/"
STATICFILES_DIRS = [ROOT / "teapot" / "static"]
WHITENOISE_USE_FINDERS = True

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "object-src": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CSRF_COOKIE_SAMESITE = SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SECURE = SESSION_COOKIE_SECURE = SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
SESSION_COOKIE_AGE = 400 * 24 * 3600
DATA_UPLOAD_MAX_MEMORY_SIZE = 2 * 1024 * 1024

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
