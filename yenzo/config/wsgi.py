"""The WSGI application that web processes serve."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
application = get_wsgi_application()
