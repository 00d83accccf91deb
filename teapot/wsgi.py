"""The entry point of the server."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "teapot.settings")

application = get_wsgi_application()

from shelf.reaching import evaluators  # noqa: E402 - the models have to be loaded

evaluators().warm()
