"""Settings. Out of the box: one local maker on loopback, everything kept in one data folder."""

import os
from pathlib import Path

from django.core.management.utils import get_random_secret_key

BASE_DIR = Path(__file__).resolve().parent
# Where the maker's pieces live. The cache folder within may be deleted at any time.
DATA_DIR = Path(os.environ.get("FAIRSTAND_DATA", Path.cwd() / "data")).resolve()
SOURCES_DIR = DATA_DIR / "sources"
CACHE_DIR = DATA_DIR / "cache"
UPLOADS_DIR = DATA_DIR / "uploads"
for _folder in (SOURCES_DIR, CACHE_DIR, UPLOADS_DIR):
    _folder.mkdir(parents=True, exist_ok=True)


def _kept_secret() -> str:
    """A key made on first use and kept beside the data."""
    path = DATA_DIR / "secret_key"
    try:
        with path.open("x") as file:
            file.write(get_random_secret_key())
        path.chmod(0o600)
    except FileExistsError:
        pass
    return path.read_text(encoding="utf-8")


SECRET_KEY = os.environ.get("FAIRSTAND_SECRET_KEY") or _kept_secret()
DEBUG = os.environ.get("FAIRSTAND_DEBUG") == "1"
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]"]

# What may be opened, and from what size on work moves to a background task.
FAIRSTAND_MAX_BYTES = int(float(os.environ.get("FAIRSTAND_MAX_MB", "260")) * 1e6)
FAIRSTAND_MAX_FACETS = int(os.environ.get("FAIRSTAND_MAX_FACETS", "5000000"))
FAIRSTAND_BACKGROUND_BYTES = int(os.environ.get("FAIRSTAND_BACKGROUND_BYTES", "15000000"))
# Whether processes that work stand beside this one; it makes nothing then that may take long.
FAIRSTAND_WORKERS = False
# Whether what is compiled is loaded before the first click; off, the first click waits for it.
FAIRSTAND_WARM_UP = os.environ.get("FAIRSTAND_WARM_UP", "on") != "off"
# From so many facets on, every way to stand it is looked at only when asked for.
FAIRSTAND_ASKED_FROM_FACETS = 40_000
# In how many directions every way to stand it is looked at.
FAIRSTAND_DIRECTIONS = max(int(os.environ.get("FAIRSTAND_DIRECTIONS", "2000")), 50)
FAIRSTAND_BACKGROUND_FACETS = int(os.environ.get("FAIRSTAND_BACKGROUND_FACETS", "400000"))
# What one piece of work may take: time, and memory (five million facets need 5 GB to be opened).
FAIRSTAND_JOB_S = 20 * 60
FAIRSTAND_MEMORY_BYTES = int(float(os.environ.get("FAIRSTAND_MEMORY_MB", "6000")) * 1e6)
# What may be kept of what was worked out: in memory of each process, and in the cache folder.
FAIRSTAND_KEPT_BYTES = int(float(os.environ.get("FAIRSTAND_KEPT_MB", "70")) * 1e6)
FAIRSTAND_CACHE_BYTES = int(float(os.environ.get("FAIRSTAND_CACHE_MB", "4000")) * 1e6)
# A change as the page sends it: a stroke over every facet of the largest model fits.
DATA_UPLOAD_MAX_MEMORY_SIZE = 128_000_000
# Without sign-in everything belongs to the one local maker. With it nobody is the maker by
# default: who has not signed in is refused. Anything but an empty text switches it on.
FAIRSTAND_SIGN_IN = os.environ.get("FAIRSTAND_SIGN_IN", "") != ""
FAIRSTAND_LOCAL_MAKER = "maker"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "fairstand.work",
    "fairstand.workshop",
    "fairstand.library",
    "fairstand.stances",
    "fairstand.bench",
    "fairstand.turning",
    "fairstand.supports",
    "fairstand.splitting",
    "fairstand.reshaping",
    "fairstand.compare",
    "fairstand.handover",
    "fairstand.interface",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "fairstand.policy.ContentPolicyMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "fairstand.owner.LocalMakerMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "fairstand.replies.PlainErrorsMiddleware",
    "fairstand.stances.shaping.ShapingMiddleware",
]
ROOT_URLCONF = "fairstand.urls"
WSGI_APPLICATION = "fairstand.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [BASE_DIR / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": ["django.template.context_processors.request"],
            "builtins": ["fairstand.colour_tag"],
        },
    }
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA_DIR / "fairstand.sqlite3",
        "CONN_MAX_AGE": None,  # the server's threads are few and stay
        "OPTIONS": {
            "timeout": 20,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=NORMAL;",
        },
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

LANGUAGE_CODE = "en-gb"
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "static/"
STATICFILES_DIRS = [BASE_DIR / "static"]
# Static files are served straight from the package, whether or not anything was collected.
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = True
WHITENOISE_MAX_AGE = 0
FILE_UPLOAD_TEMP_DIR = str(UPLOADS_DIR)
FILE_UPLOAD_HANDLERS = ["django.core.files.uploadhandler.TemporaryFileUploadHandler"]
SECURE_CONTENT_TYPE_NOSNIFF = True
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    # A refused edit is the maker's business and is said on the page.
    "loggers": {"django.request": {"level": "ERROR"}},
}
