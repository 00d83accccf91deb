"""What all tests share."""

import os
import tempfile

import pytest
from hypothesis import settings

from tests.examples import IS_THOROUGH
from tests.server import running

# The suite never touches the data of an installation.
os.environ["TEAPOT_DATA"] = tempfile.mkdtemp(prefix="teapot-tests-")

os.environ["TEAPOT_PACED"] = "0"

# The processes that tests start compile what they import once, and not each anew.
os.environ.pop("PYTHONDONTWRITEBYTECODE", None)

# The same examples in every run, and none fails for being slow: what passes here passes on
# the next machine.  ``make fuzz`` goes looking for others.
settings.register_profile("teapot", derandomize=not IS_THOROUGH, deadline=None)
settings.load_profile("teapot")
# Playwright leaves an event loop running in the process, in which tests of the database may come
# next: the two run one after the other
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")


@pytest.fixture(autouse=True, scope="session")
def the_web(request):
    """What the tests of the web have: files of their own in each process, passwords that are
    hashed at once, since how slowly that is done is Django's business, and browsers that do not
    each look through all static files."""
    if not request.config.pluginmanager.hasplugin("django"):
        return  # the engine's tests run without
    from django.conf import settings

    settings.DATA = request.getfixturevalue("tmp_path_factory").mktemp("data")
    settings.WHITENOISE_AUTOREFRESH = True
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    # After each test with transactions of its own, Django would write its permissions and the
    # types of its content anew, which takes longer than most tests and which nothing here reads.
    from django.contrib.auth.management import create_permissions
    from django.contrib.contenttypes.management import create_contenttypes
    from django.db.models.signals import post_migrate

    post_migrate.disconnect(create_contenttypes)
    uid = "django.contrib.auth.management.create_permissions"
    assert post_migrate.disconnect(create_permissions, dispatch_uid=uid)


@pytest.fixture(autouse=True, scope="session")
def no_evaluator_in_a_transaction(request):
    """Whoever waits for an evaluator keeps nobody else from writing."""
    if not request.config.pluginmanager.hasplugin("django"):
        yield
        return
    from django.db import connection

    from teapot.fence import asking

    work = asking.work

    def outside(*arguments):
        assert not connection.in_atomic_block, "an evaluator is asked within a transaction"
        return work(*arguments)

    asking.work = outside
    yield
    asking.work = work


@pytest.fixture(autouse=True, scope="session")
def no_server_left():
    """Ends what tests that failed left running: it would hold what waits for its output."""
    yield
    for one in list(running):
        one.kill()


LONGEST_FIRST = ("browser", "console", "fence", "tests", "shelf")
"""The folders whose tests take longest: theirs come first, so that the last files of a run in
several processes are short ones."""


def pytest_collection_modifyitems(items):
    """Puts what takes long before what does not."""
    ranks = {folder: rank for rank, folder in enumerate(LONGEST_FIRST)}
    items.sort(key=lambda item: ranks.get(item.path.parent.name, len(ranks)))
