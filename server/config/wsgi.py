"""The application for gunicorn."""

import gc
import os

from django.core.wsgi import get_wsgi_application
from django.urls import get_resolver

from keel.warm import warm_answers

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.config.settings")
application = get_wsgi_application()

# Load everything before the first request. What is loaded stays: looking it through at every collection
# would only make answers late.
get_resolver().url_patterns  # noqa: B018
warm_answers()
gc.collect()
gc.freeze()
