"""``python -m teapot.serve``: all that serves, in one command.

It says how many parts there are and where they answer, and becomes supervisord, which starts them
as ``supervisord.conf`` beside it says, starts one again that has ended, and logs both.  With
systemd, the units in ``deploy`` do the same.
"""

from __future__ import annotations

import argparse
import os
import socket
import sys
import tempfile
from hashlib import sha256
from pathlib import Path

from teapot.engine.limited.process_setup import SUPERVISOR

ROOT = Path(__file__).resolve().parent.parent
CONFIGURATION = Path(__file__).with_name("supervisord.conf")


def main() -> None:
    """Serves until it is told to end."""
    cores = os.cpu_count() or 1
    parser = argparse.ArgumentParser(prog="python -m teapot.serve", description=__doc__)
    parser.add_argument("--bind", default="127.0.0.1:8000", help="address and port, or unix:PATH")
    parser.add_argument("--workers", type=int, default=cores, help="web processes")
    parser.add_argument("--threads", type=int, default=16, help="threads of each")
    parser.add_argument("--evaluators", type=int, default=0, help="processes that work lines out")
    wanted = parser.parse_args()
    try:
        at = _socket_at(wanted.bind)
        folder = _run_folder()
    except (OSError, ValueError, OverflowError) as error:
        parser.exit(1, f"Teapot cannot serve at {wanted.bind}: {error}\n")
    count = wanted.evaluators or int(os.environ.get("TEAPOT_EVALUATORS", cores + 1))
    told = {
        SUPERVISOR: str(os.getpid()),
        "TEAPOT_SOCKET": at,
        "TEAPOT_RUN": str(folder),
        "TEAPOT_PYTHON": sys.executable,
        "TEAPOT_WEB": str(wanted.workers),
        "TEAPOT_THREADS": str(wanted.threads),
        "TEAPOT_EVALUATORS": str(count),
    }
    command = [sys.executable, "-m", "supervisor.supervisord", "-c", str(CONFIGURATION)]
    os.execve(sys.executable, command, os.environ | told)  # noqa: S606 - fixed words


def _socket_at(bind: str) -> str:
    """The address as supervisord has it, where one can listen there.  Errors: OSError."""
    if bind.startswith("unix:"):
        path = Path(bind.removeprefix("unix:")).absolute()
        if not path.parent.is_dir():
            raise FileNotFoundError(f"there is no folder {path.parent}")
        return f"unix://{path}"
    host, _, port = bind.rpartition(":")
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    socket.create_server((host.strip("[]"), int(port)), family=family).close()
    return f"tcp://{bind}"


def _run_folder() -> Path:
    """A folder for sockets, the same at each start: their paths may not be long."""
    data = os.environ.get("TEAPOT_DATA", str(ROOT / "var"))
    name = sha256(os.fsencode(Path(data).absolute())).hexdigest()[:12]
    folder = Path(tempfile.gettempdir()) / f"teapot-{os.getuid()}-{name}"
    folder.mkdir(mode=0o700, exist_ok=True)
    if folder.stat().st_uid != os.getuid():
        raise PermissionError(f"{folder} is somebody else's")
    return folder


if __name__ == "__main__":
    main()
