"""The WSGI application that web processes serve."""

import os

from django.core.wsgi import get_wsgi_application

from yenzo.core.planning.engine import engine_id

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "yenzo.config.settings")
application = get_wsgi_application()
# What is kept says which engine made it. That takes a third of a second to find out: here, for all processes at once.
engine_id()
