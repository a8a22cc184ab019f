"""Settings of one installation: environment variables come in, Django's settings go out."""

from pathlib import Path
from urllib.parse import urlsplit

import environ
from csp.constants import NONE, SELF
from django.core.management.utils import get_random_secret_key

from yenzo.config.required import PRACTICE, mode_of, require

CHECKOUT = Path(__file__).resolve().parent.parent.parent
env = environ.Env()

require(env.ENVIRON)
IS_PRACTICE = mode_of(env.ENVIRON) == PRACTICE
# Where this installation is reached: links in mails begin with it.
SITE_ADDRESS = env.str("SITE_ADDRESS", "http://127.0.0.1:8480").rstrip("/")
# Of a practice installation that isn't given one, nothing that is signed outlives the process.
SECRET_KEY = env.str("SECRET_KEY", "") or get_random_secret_key()
DEBUG = env.bool("DEBUG", False) and IS_PRACTICE
ALLOWED_HOSTS = env.list("ALLOWED_HOSTS", default=[urlsplit(SITE_ADDRESS).hostname or ""])
if IS_PRACTICE:
    ALLOWED_HOSTS += ["127.0.0.1", "localhost", "testserver"]
CSRF_TRUSTED_ORIGINS = env.list("CSRF_TRUSTED_ORIGINS", default=[])
IS_BEHIND_TLS = SITE_ADDRESS.startswith("https:")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "django.contrib.postgres",
    "django.contrib.sitemaps",
    "csp",
    "django_htmx",
    "procrastinate.contrib.django",
    "yenzo.apps.pages",
    "yenzo.apps.accounts",
    "yenzo.apps.workshop",
    "yenzo.apps.files",
    "yenzo.apps.outbox",
    "yenzo.apps.history",
    "yenzo.apps.materials",
    "yenzo.apps.stock",
    "yenzo.apps.products",
    "yenzo.apps.designs",
    "yenzo.apps.slip",
    "yenzo.apps.editor",
    "yenzo.apps.orders",
    "yenzo.apps.desk",
    "yenzo.apps.shop",
    "yenzo.apps.production",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "yenzo.apps.accounts.request_guard.RequestGuard",
    "yenzo.apps.workshop.current.WorkshopPerRequest",
    "yenzo.apps.designs.framed.Frames",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "yenzo.apps.designs.visitors.VisitorCookie",
    "yenzo.apps.workshop.languages.ReaderLanguage",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_htmx.middleware.HtmxMiddleware",
]
ROOT_URLCONF = "yenzo.config.urls"
WSGI_APPLICATION = "yenzo.config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [CHECKOUT / "yenzo" / "templates"],
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
                "yenzo.apps.workshop.context.workshop_context",
            ],
            "builtins": ["django.templatetags.i18n", "yenzo.apps.pages.templatetags.writing"],
        },
    }
]

DATABASES = {"default": env.db("DATABASE_URL", "postgres://yenzo@127.0.0.1:55432/postgres")}
# A connection that the database has closed is noticed before it is used; nobody waits longer than this for a free one.
POOL = {"min_size": 1, "max_size": 8, "timeout": 5}
DATABASES["default"]["OPTIONS"] = {"pool": POOL} if env.bool("DATABASE_POOL", False) else {}
DATABASES["default"]["CONN_HEALTH_CHECKS"] = True
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.Person"
AUTH_PASSWORD_VALIDATORS = [{"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"}]
LOGIN_URL = "accounts:sign_in"
LOGIN_REDIRECT_URL = "accounts:front_door"
LOGOUT_REDIRECT_URL = "accounts:sign_in"

# The workshop's own language, and those that its shop speaks; scripts/words.py keeps their catalogues.
LANGUAGE_CODE = "en-gb"
LANGUAGES = [("en-gb", "English"), ("de", "Deutsch"), ("ar", "العربية")]
LOCALE_PATHS = [CHECKOUT / "yenzo" / "locale"]
LANGUAGE_COOKIE_SECURE = IS_BEHIND_TLS
LANGUAGE_COOKIE_AGE = 365 * 24 * 3600
TIME_ZONE = "UTC"
USE_TZ = True
USE_I18N = True

# From the root: addresses within a frame have a head of their own, which files don't need.
STATIC_URL = "/static/"
STATICFILES_DIRS = [CHECKOUT / "yenzo" / "static"]
STATIC_ROOT = env.path("STATIC_ROOT", str(CHECKOUT / ".run" / "static"))
FILES_ROOT = Path(env.str("FILES_ROOT", str(CHECKOUT / ".run" / "files")))
# Django and whitenoise want their folders to be there.
for folder in (FILES_ROOT, Path(STATIC_ROOT)):
    folder.mkdir(parents=True, exist_ok=True)
MEDIA_ROOT = FILES_ROOT
CACHES = {
    "default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache"},
    # Made once for all processes, and again when somebody takes them away.
    "pictures": {
        "BACKEND": "django.core.cache.backends.filebased.FileBasedCache",
        "LOCATION": env.str("SHOWN_ROOT", f"{FILES_ROOT}-shown"),
        "TIMEOUT": 30 * 24 * 3600,
        "OPTIONS": {"MAX_ENTRIES": 20_000},
    },
}
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {
        "BACKEND": env.str("STATIC_STORAGE", "django.contrib.staticfiles.storage.StaticFilesStorage"),
    },
}
# Uploads are renamed into place, so they wait on the file system where they will stay.
FILE_UPLOAD_TEMP_DIR = str(FILES_ROOT)
FILE_UPLOAD_HANDLERS = ["yenzo.apps.designs.upload_handling.BoundedUploadHandler"]
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_500_000

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "img-src": [SELF, "data:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_SSL_REDIRECT = IS_BEHIND_TLS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if IS_BEHIND_TLS else None
# A year, for all that belongs to the site, once it is reached by TLS.
# Not of a practice installation: a browser would keep to TLS for everything else on that host.
SECURE_HSTS_SECONDS = env.int("HSTS_SECONDS", 365 * 24 * 3600) if IS_BEHIND_TLS and not IS_PRACTICE else 0
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = SECURE_HSTS_SECONDS > 0
SESSION_COOKIE_SECURE = IS_BEHIND_TLS
CSRF_COOKIE_SECURE = IS_BEHIND_TLS
CSRF_FAILURE_VIEW = "yenzo.apps.pages.views.errors.csrf_failure"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 24 * 3600

PROCRASTINATE_AUTODISCOVER_MODULE_NAME = "jobs"
PROCRASTINATE_ON_APP_READY = "yenzo.config.jobs.on_app_ready"
# How long a worker may be silent before its jobs are given to another.
WORKER_SILENCE_SECONDS = env.int("WORKER_SILENCE_SECONDS", 30)
# By how much workers stand back behind web processes on the same machine (nice, 0 to 19).
WORKER_NICENESS = env.int("WORKER_NICENESS", 10)

# The shop sells in one currency.
CURRENCY = env.str("CURRENCY", "GBP")
WORKSHOP_NAME = env.str("WORKSHOP_NAME", "Tern & Tiller")
WORKSHOP_MAIL = env.str("WORKSHOP_MAIL", "workshop@tern-and-tiller.example")
# When a job asks how a payment ended that had no answer.
SETTLE_AFTER_SECONDS = env.int("SETTLE_AFTER_SECONDS", 4)
PAYMENT_GATEWAY = {
    "BACKEND": env.str("PAYMENT_BACKEND", "yenzo.gateways.payment.practice.PracticePayment"),
    "OPTIONS": env.json(
        "PAYMENT_OPTIONS",
        {
            "folder": FILES_ROOT / "practice-payments",
            "silence_seconds": env.float("PRACTICE_SILENCE_SECONDS", 6.0),
        },
    ),
}
CARRIER_GATEWAY = {
    "BACKEND": env.str("CARRIER_BACKEND", "yenzo.gateways.carrier.practice.PracticeCarrier"),
    "OPTIONS": env.json(
        "CARRIER_OPTIONS",
        {"folder": FILES_ROOT / "practice-parcels", "days_on_the_way": env.float("PRACTICE_DAYS_ON_THE_WAY", 2.0)},
    ),
}
# The album that customers may take pictures from; none where it has no address.
ALBUM_ADDRESS = env.str("ALBUM_ADDRESS", "")
ALBUM_GATEWAY = {
    "BACKEND": env.str("ALBUM_BACKEND", "yenzo.gateways.album.practice.PracticeAlbum"),
    "OPTIONS": env.json(
        "ALBUM_OPTIONS",
        {
            "address": ALBUM_ADDRESS,
            "secret": env.str("ALBUM_SECRET", ""),
            "patience_seconds": env.float("ALBUM_PATIENCE_SECONDS", 6.0),
        },
    ),
}
# Django's own name for the post: django.core.mail.backends.smtp.EmailBackend sends by EMAIL_HOST and the others.
EMAIL_BACKEND = env.str("EMAIL_BACKEND", "yenzo.gateways.mail.outbox.OutboxFolder")
EMAIL_HOST, EMAIL_PORT = env.str("EMAIL_HOST", "localhost"), env.int("EMAIL_PORT", 25)
EMAIL_HOST_USER, EMAIL_HOST_PASSWORD = env.str("EMAIL_HOST_USER", ""), env.str("EMAIL_HOST_PASSWORD", "")
EMAIL_USE_TLS, EMAIL_USE_SSL = env.bool("EMAIL_USE_TLS", False), env.bool("EMAIL_USE_SSL", False)
EMAIL_TIMEOUT = env.int("EMAIL_TIMEOUT", 20)
OUTBOX_FOLDER = FILES_ROOT / "outbox"
# How many proxies of our own stand before the web processes: that many parts of X-Forwarded-For are believed.
TRUSTED_PROXIES = env.int("TRUSTED_PROXIES", 0)
# What one address may do, each counted for all processes but the previews. Several windows are parted by semicolons.
LIMITS = {
    "preview": env.str("LIMIT_PREVIEWS", "1800/minute"),
    "keep": env.str("LIMIT_KEEPING", "120/minute;1500/hour"),
    "upload": env.str("LIMIT_UPLOADS", "30/minute;300/hour"),
    "list": env.str("LIMIT_LIST", "240/minute;3000/hour"),
    "whole_list": env.str("LIMIT_WHOLE_LIST", "20/minute;200/hour"),
    "basket": env.str("LIMIT_BASKET", "60/minute;600/hour"),
    "checkout": env.str("LIMIT_CHECKOUTS", "6/minute;40/hour"),
    "payment": env.str("LIMIT_PAYMENTS", "12/minute;100/hour"),
    "sign_in": env.str("LIMIT_SIGN_INS", "5/minute;20/hour"),
    # Staff: by name and place, by place, and by a browser that signed in with that name before.
    "staff_sign_in": env.str("LIMIT_STAFF_SIGN_IN", "8/15minutes"),
    "staff_sign_ins": env.str("LIMIT_STAFF_SIGN_INS", "40/15minutes"),
    "known_device": env.str("LIMIT_KNOWN_DEVICE", "20/15minutes"),
}
# "database://", or a store that the library limits knows, as redis://localhost:6379.
LIMITS_STORAGE = env.str("LIMITS_STORAGE", "database://")
# Mails that one recipient gets without having paid or signed in: links to sign in with, orders with that address.
MAILS_TO_ONE_AN_HOUR = env.int("MAILS_TO_ONE_AN_HOUR", 6)
MOST_UPLOAD_BYTES = 50_000_000
# What one visitor may have waiting, and kept until it is ordered or cleared.
MOST_WAITING_UPLOADS = env.int("MOST_WAITING_UPLOADS", 30)
MOST_VISITOR_UPLOADS = env.int("MOST_VISITOR_UPLOADS", 500)
MOST_VISITOR_BYTES = env.int("MOST_VISITOR_BYTES", 1_000_000_000)
# A form may carry more than one picture (a product's and its variants').
MOST_REQUEST_BYTES = 60_000_000
# Of a file that arrives part by part; browsers send half of that at once.
MOST_PART_BYTES = 1_000_000

# For how many days things are kept that nobody needs for good (see the page Files).
RETENTION_DAYS = {
    "designs": env.int("KEEP_DESIGNS_DAYS", 90),
    "lists": env.int("KEEP_LISTS_DAYS", 180),
    "personalizations": env.int("KEEP_CHANGED_DAYS", 1),
    "unfinished": env.int("KEEP_UNFINISHED_DAYS", 14),
    "uploads": env.int("KEEP_UPLOADS_DAYS", 14),
    "arriving": 1,
    "links": env.int("KEEP_LINKS_DAYS", 1),
    "mails": env.int("KEEP_MAILS_DAYS", 90),
    "sessions": 0,
    "counts": 0,
    "jobs": 7,
    "runs": 90,
    "parts": 1,
    "unused_files": 1,
}
# Beyond this no customer's file is taken; staff are warned before. What is least is left to orders and packs.
MOST_STORED_BYTES = env.int("MOST_STORED_BYTES", 200_000_000_000)
LOW_DISK_BYTES = env.int("LOW_DISK_BYTES", 5_000_000_000)
LEAST_DISK_BYTES = env.int("LEAST_DISK_BYTES", 500_000_000)

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": env.str("LOG_LEVEL", "WARNING")},
}
