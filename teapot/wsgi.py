"""The entry point of the server."""

import os

from django.conf import settings
from django.core.wsgi import get_wsgi_application

from fence.evaluators import evaluators

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "teapot.settings")

application = get_wsgi_application()

evaluators(settings.TEAPOT_EVALUATORS).warm()
