"""No address shows or changes the sheet of another person, whatever is asked for."""

import uuid

import pytest
from django.test import Client
from django.urls import URLPattern, URLResolver, reverse

from teapot.console.models import Line
from teapot.console.urls import of_sheet, urlpatterns
from tests.console.test_requests import Visitor

pytestmark = pytest.mark.django_db(transaction=True)

VALUES = {"number": 1, "place": 0, "name": "angle", "ending": "json"}
"""What stands in the addresses beside the sheet's key."""

FIELDS = {
    "since": "0", "text": "secret", "token": str(uuid.UUID(int=7)), "name": "secret",
    "value": "deg", "new": "mine", "title": "mine", "way": "up", "form": "hex", "numbers": ["1"],
    "line": "1", "before": "9", "caret": "3", "angle": "30", "unit": "deg",
}  # fmt: skip


def of_a_sheet(pattern: URLPattern | URLResolver) -> bool:
    return isinstance(pattern, URLPattern) and "<uuid:pk>" in str(pattern.pattern)


def address(pattern: URLPattern, sheet: str) -> str:
    wanted = pattern.pattern.converters
    values = {name: VALUES[name] for name in wanted if name != "pk"}
    return reverse(pattern.name, kwargs={"pk": sheet.rsplit("/", 1)[1], **values})


ADDRESSES = [*of_sheet, *filter(of_a_sheet, urlpatterns)]


@pytest.mark.parametrize("pattern", ADDRESSES, ids=lambda pattern: pattern.name)
@pytest.mark.parametrize("method", ["get", "post"])
def test_the_sheet_of_another_is_not_found(pattern, method):
    owner, other, nobody = Visitor(), Visitor(), Client()
    owner.keep("secret = 73419052°  # for nobody else", "table([1, 2], [3, 4])")
    before = list(Line.objects.order_by("pk").values_list("number", "text", "deleted", "place"))
    for client in (other.client, nobody):
        reply = getattr(client, method)(address(pattern, owner.url), FIELDS)
        assert reply.status_code in (404, 405)
        assert b"secret" not in reply.content
        assert b"73419052" not in reply.content
    after = list(Line.objects.order_by("pk").values_list("number", "text", "deleted", "place"))
    assert after == before


@pytest.mark.parametrize("pattern", ADDRESSES, ids=lambda pattern: pattern.name)
def test_a_sheet_that_does_not_exist_is_not_found_either(pattern):
    visitor = Visitor()
    for method in (visitor.client.get, visitor.client.post):
        reply = method(address(pattern, f"/sheets/{uuid.uuid4()}"), FIELDS)
        assert reply.status_code in (404, 405)


@pytest.mark.parametrize("pattern", ADDRESSES, ids=lambda pattern: pattern.name)
def test_an_empty_request_does_not_take_the_service_down(pattern):
    visitor = Visitor()
    visitor.keep("a = 1")
    for method in (visitor.client.get, visitor.client.post):
        assert method(address(pattern, visitor.url)).status_code < 500
    assert visitor.get().status_code == 200
