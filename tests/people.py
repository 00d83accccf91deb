"""People with something on their shelf, for tests of what is kept and sent."""

import re
import uuid
from html import unescape

from django.core import mail
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from teapot.accounts.entering import SESSION_KEY
from teapot.accounts.models import Person
from teapot.console.models import Sheet


def sign_up(client, email, password):
    """Asks for an account and follows the link in the mail: the reply to that."""
    asked = client.post("/account/new", {"up-email": email, "up-password": password})
    return client.post(link_in(mail.outbox[-1])) if asked.status_code == 302 else asked


def link_in(letter):
    """The path of the link in a mail."""
    return re.findall(r"http://testserver(/\S+)", letter.body)[-1]


def zipped(client):
    """Everything of whoever has that browser."""
    return b"".join(client.get("/shelf/everything.zip").streaming_content)


class Someone:
    """A browser of a person, with the first sheet."""

    def __init__(self):
        self.client = Client()
        self.address = self.client.get("/").headers["Location"]
        self.client.post(f"{self.address}/title")  # which keeps something: the person is made

    @property
    def person(self):
        return Person.objects.get(pk=self.client.session[SESSION_KEY])

    @property
    def sheet(self):
        return Sheet.objects.get(pk=self.address.rpartition("/")[2])

    def keep(self, *texts):
        for text in texts:
            fields = {"text": text, "token": str(uuid.uuid4()), "since": 10**6}
            reply = self.client.post(f"{self.address}/lines", fields)
        return reply

    def procedure(self, name, text):
        """A procedure of that name; its address."""
        address = self.client.post("/procedures/new").headers["Location"]
        self.client.post(f"/shelf/procedure/{address.rpartition('/')[2]}/rename", {"value": name})
        self.client.post(f"{address}/keep", {"text": text})
        return address

    def table(self, name="pots", text="x\n2\n4\n"):
        """A table of that name; its address."""
        file = SimpleUploadedFile(f"{name}.csv", text.encode())
        looked_at = self.client.post("/tables/new", {"file": file}).headers["Location"]
        return self.client.post(f"{looked_at}/keep", {"name": name}).headers["Location"]

    def shown(self, address, **query):
        return unescape(self.client.get(address, query).content.decode())

    def act(self, kind, pk, what, **fields):
        reply = self.client.post(
            f"/shelf/{kind}/{pk}/{what}", fields, headers={"HX-Request": "true"}
        )
        return unescape(reply.content.decode())
