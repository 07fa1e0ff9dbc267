"""Settings, from the environment; what is not set is safe for one machine in the shop.

KETTLE_DATA (folder of the database and the secret), KETTLE_HOSTS (comma separated), KETTLE_HTTPS=1 (behind TLS),
KETTLE_DEBUG=1, KETTLE_TIME_ZONE.
"""

import os
from datetime import timedelta
from pathlib import Path

from csp.constants import NONCE, NONE, SELF
from django.core.management.utils import get_random_secret_key

ROOT = Path(__file__).resolve().parent.parent
DATA = Path(os.environ.get("KETTLE_DATA", ROOT / "var"))
DATA.mkdir(parents=True, exist_ok=True, mode=0o700)
if DATA.stat().st_uid == os.getuid() and DATA.stat().st_mode & 0o077:
    # Customers, photos and log-ins are nobody else's on the machine.
    DATA.chmod(0o700)

DEBUG = os.environ.get("KETTLE_DEBUG") == "1"
HTTPS = os.environ.get("KETTLE_HTTPS") == "1"
# Where the TLS proxy asks from; only its word on address and protocol is believed.
TLS_PROXY = os.environ.get("KETTLE_TLS_PROXY", "127.0.0.1") if HTTPS else ""
ALLOWED_HOSTS = os.environ.get("KETTLE_HOSTS", "127.0.0.1,localhost,[::1]").split(",")


def _secret() -> str:
    """The key of this installation: from the environment, else made at first start and kept beside the data."""
    if "KETTLE_SECRET" in os.environ:
        return os.environ["KETTLE_SECRET"]
    kept = DATA / "secret"
    if not kept.exists():
        made = DATA / f"secret.{os.getpid()}"
        made.touch(mode=0o600)
        made.write_text(get_random_secret_key())
        try:
            os.link(made, kept)
        except FileExistsError:
            pass
        finally:
            made.unlink()
    return kept.read_text()


SECRET_KEY = _secret()

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "whitenoise.runserver_nostatic",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "django_htmx",
    "web.accounts",
    "web.logbook",
    "web.round",
    "web.benches.pressure_chart",
    "web.benches.ice",
    "web.benches.defrost",
    "web.benches.valve",
    "web.benches.controls",
    "web.benches.charge",
    "web.benches.refrigerant",
    "web.benches.probes",
    "web.benches.trends",
    "web.benches.prove",
    "web.benches.report",
    "web.benches.quote",
    "web.benches.sets",
    "web.benches.electrical",
    "web.reports",
    "web.yard",
    "web.running",
    "web.demo",
]

MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "web.accounts.middleware.PrivatePages",
    "web.accounts.middleware.ClearRefusals",
    "web.accounts.middleware.CleanText",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "web.accounts.middleware.ShortSessions",
    "web.accounts.middleware.OnePerson",
    "web.accounts.middleware.LoginRequired",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
    "web.logbook.once.TakenOnce",
    "axes.middleware.AxesMiddleware",
    "web.yard.middleware.InTheYard",
]

ROOT_URLCONF = "web.urls"
WSGI_APPLICATION = "web.wsgi.application"

TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "web" / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {
            "builtins": ["web.logbook.templatetags.forms_once"],
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
                "web.accounts.context.look",
                "web.yard.context.practice",
            ],
        },
    },
]

# Full synchronous WAL: an entry that was answered survives a flat battery; readers never wait for a writer.
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "kettle.sqlite3",
        "OPTIONS": {
            "timeout": 10,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
        "CONN_MAX_AGE": None,
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

# Memory-hard and quick enough to log in at a cold counter; others are read and replaced at the next log-in.
PASSWORD_HASHERS = [
    "django.contrib.auth.hashers.ScryptPasswordHasher",
    "django.contrib.auth.hashers.PBKDF2PasswordHasher",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
]
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
# Guessing: a name is locked for the address that guesses it, so that nobody can lock a colleague out from elsewhere.
AXES_FAILURE_LIMIT = 6
AXES_COOLOFF_TIME = timedelta(minutes=10)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_ENABLE_ACCESS_FAILURE_LOG = True
AXES_DISABLE_ACCESS_LOG = True
AXES_LOCKOUT_CALLABLE = "web.accounts.views.locked_out"
AXES_VERBOSE = False
LOGIN_URL = "login"
LOGIN_REDIRECT_URL = "board"
LOGOUT_REDIRECT_URL = "login"

LANGUAGE_CODE = "en-us"
USE_I18N = False
_kept_zone = DATA / "time-zone"
TIME_ZONE = os.environ.get("KETTLE_TIME_ZONE") or (_kept_zone.read_text().strip() if _kept_zone.exists() else "UTC")
USE_TZ = True

MEDIA_ROOT = DATA / "media"
FILE_UPLOAD_PERMISSIONS = 0o600
FILE_UPLOAD_DIRECTORY_PERMISSIONS = 0o700
STATIC_URL = "/static/"
STATICFILES_DIRS = [ROOT / "web" / "static"]
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
WHITENOISE_USE_FINDERS = True
WHITENOISE_MAX_AGE = 600

# What goes wrong is said on the console also when DEBUG is off.
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "loggers": {"django.request": {"handlers": ["console"], "level": "ERROR", "propagate": True}},
}

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CSRF_COOKIE_HTTPONLY = True
DATA_UPLOAD_MAX_MEMORY_SIZE = 4_000_000
if HTTPS:
    SECURE_SSL_REDIRECT = True
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SECURE_HSTS_SECONDS = 31_536_000
    SECURE_HSTS_INCLUDE_SUBDOMAINS = True
    SECURE_HSTS_PRELOAD = True
    SESSION_COOKIE_SECURE = True
    CSRF_COOKIE_SECURE = True

# A paper is waited for so long before the page says how far it is, s.
PAPER_WAIT_S = 0.3
# What was told of a call is told again for so long as nothing on it changes, s; 0 tells it anew each time.
TOLD_KEPT_S = 15.0
