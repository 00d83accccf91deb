"""The stand-in for a server of mails: a folder of files, one for each mail."""

from __future__ import annotations

from email import message_from_bytes, policy
from email.message import EmailMessage
from pathlib import Path

from django.conf import settings

MOST = 20


def all_of_them() -> list[dict[str, str]]:
    """The last mails, newest first: to whom, about what, and what they say."""
    folder = Path(settings.EMAIL_FILE_PATH)
    files = sorted(folder.glob("*.log"), key=lambda file: file.stat().st_mtime, reverse=True)
    return [_read(file) for file in files[:MOST]]


def _read(file: Path) -> dict[str, str]:
    message = message_from_bytes(file.read_bytes(), policy=policy.default)
    assert isinstance(message, EmailMessage)
    text = str(message.get_content()).rpartition("\n" + "-" * 79)[0] or str(message.get_content())
    return {"to": str(message["To"]), "about": str(message["Subject"]), "text": text.strip()}
