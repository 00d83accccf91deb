"""The content security policy of all pages: for all that have no other it is made once."""

from __future__ import annotations

from functools import cache

from csp.constants import HEADER
from csp.middleware import CSPMiddleware
from csp.utils import build_policy
from django.http import HttpRequest, HttpResponseBase

ITS_OWN = ("_csp_config", "_csp_update", "_csp_replace", "_csp_exempt")
"""Marks of a reply that has another policy."""


@cache
def of_all() -> str:
    """As it is said with nearly every reply."""
    return build_policy()


class Policy(CSPMiddleware):
    """Django middleware: says the policy with every reply."""

    def process_request(self, request: HttpRequest) -> None:
        """Nothing is told apart by a nonce."""

    def process_response(
        self, request: HttpRequest, response: HttpResponseBase
    ) -> HttpResponseBase:
        """Sets the header."""
        if any(hasattr(response, mark) for mark in ITS_OWN):
            return super().process_response(request, response)
        response.headers.setdefault(HEADER, of_all())
        return response
