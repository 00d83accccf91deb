"""What whoever looks after a server is told."""

import pytest
from django.db import OperationalError

from teapot.hosting import health

pytestmark = pytest.mark.django_db(transaction=True)


def test_all_is_well(client):
    reply = client.get("/health")
    assert (reply.status_code, reply.json()) == (200, {"storage": "well", "evaluators": "well"})


def test_what_is_not_well_is_said(client, monkeypatch):
    def broken():
        raise OperationalError

    monkeypatch.setattr(health.connection, "cursor", broken)
    monkeypatch.setattr(health, "ask", lambda *_: (_ for _ in ()).throw(health.EvaluatorsBusy()))
    reply = client.get("/health")
    assert (reply.status_code, reply.json()) == (
        503, {"storage": "cannot be read", "evaluators": "do not answer"},
    )  # fmt: skip
