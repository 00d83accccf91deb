"""Passwords are hashed by a thread of their own, and only a few wait for it."""

import threading

import pytest
from django.contrib.auth.hashers import check_password, identify_hasher, make_password
from django.test import Client

from teapot.accounts import background, hashing
from teapot.accounts.models import Person
from tests.threads import Thread

ARGON2, OF_BEFORE = "teapot.accounts.hashing.Argon2", "teapot.accounts.hashing.OfBefore"


@pytest.fixture(autouse=True)
def hashers(settings):
    settings.PASSWORD_HASHERS = [ARGON2, OF_BEFORE]


def test_a_password_is_hashed_by_argon2id_as_much_as_is_recommended():
    encoded = make_password("warm the pot first")
    assert encoded.startswith("argon2$argon2id$")
    known = identify_hasher(encoded).decode(encoded)
    # OWASP Password Storage Cheat Sheet: at least 46 MiB with one pass
    assert known["memory_cost"] >= 47104
    assert known["time_cost"] >= 1
    assert check_password("warm the pot first", encoded)
    assert not check_password("warm the pot", encoded)


@pytest.mark.django_db
def test_one_that_was_hashed_before_is_hashed_anew_when_it_is_used(settings):
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.PBKDF2PasswordHasher"]
    person = Person.objects.create(email="ada@example.org")
    person.set_password("warm the pot first")
    person.save()
    assert person.password.startswith("pbkdf2_sha256$")
    settings.PASSWORD_HASHERS = [ARGON2, OF_BEFORE]
    assert person.check_password("warm the pot first")
    person.refresh_from_db()
    assert person.password.startswith("argon2$")


def test_hashing_stands_back():
    import os

    niceness = hashing.apart(lambda: os.getpriority(os.PRIO_PROCESS, threading.get_native_id()))
    assert niceness >= background.NICENESS


@pytest.mark.django_db
def test_whoever_comes_while_many_wait_is_told_so_at_once_and_is_taken_later():
    goes_on = threading.Event()
    waiting = [Thread(hashing.apart, goes_on.wait) for _ in range(hashing.MOST_WAITING)]
    while hashing._places._value:
        pass
    fields = {"email": "nobody@example.org", "password": "warm the pot first"}
    try:
        reply = Client().post("/account/sign-in", fields)
        assert reply.status_code == 503
        assert "Many people are signing in" in reply.content.decode()
    finally:
        goes_on.set()
    for one in waiting:
        one.join()
    assert Client().post("/account/sign-in", fields).status_code == 422  # no such account
