"""What all tests share."""

import os
import tempfile

# The suite never touches the data of an installation.
os.environ["TEAPOT_DATA"] = tempfile.mkdtemp(prefix="teapot-tests-")
