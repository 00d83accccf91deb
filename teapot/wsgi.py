"""The entry point of the server."""

import os

from django.core.signals import request_started
from django.core.wsgi import get_wsgi_application
from django.db import close_old_connections, reset_queries

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "teapot.settings")

application = get_wsgi_application()

# The end of each request looks whether its connection is of use still, which is enough, and
# statements are noted for nobody.
request_started.disconnect(close_old_connections)
request_started.disconnect(reset_queries)

# the models have to be loaded for these
from teapot.console.quick import Quickly  # noqa: E402
from teapot.shelf.queries import evaluators  # noqa: E402

application = Quickly(application)
evaluators().warm()
