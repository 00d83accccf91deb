"""What all tests share."""

import os
import tempfile

import pytest
from django.conf import settings as django_settings
from hypothesis import settings

from tests.server import running

# The suite never touches the data of an installation.
os.environ["TEAPOT_DATA"] = tempfile.mkdtemp(prefix="teapot-tests-")

os.environ["TEAPOT_PACED"] = "0"

# The same examples in every run, and none fails for being slow: what passes here passes on
# the next machine.  ``pytest --hypothesis-profile=default`` goes looking for others.
settings.register_profile("teapot", derandomize=True, deadline=None)
settings.load_profile("teapot")
# Playwright leaves an event loop running in the process, in which tests of the database may come
# next: the two run one after the other
os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")


@pytest.fixture(autouse=True, scope="session")
def data_of_its_own(tmp_path_factory):
    """Each process has files of its own: one does not see those that another makes."""
    django_settings.DATA = tmp_path_factory.mktemp("data")


@pytest.fixture(autouse=True, scope="session")
def quick_passwords():
    """Passwords are hashed at once: how slowly that is done is Django's business."""
    django_settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]


@pytest.fixture(autouse=True, scope="session")
def no_server_left():
    """Ends what tests that failed left running: it would hold what waits for its output."""
    yield
    for one in list(running):
        one.kill()


def pytest_collection_modifyitems(items):
    """The tests that drive the browser come first: they take the longest, and so the last files
    of a run in several processes are short ones."""
    items.sort(key=lambda item: "browser" not in item.path.parts)
