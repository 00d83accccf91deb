"""Whose work an evaluator does next: everybody gets a fair share, whatever others send.

One piece of work at a time is done for a person.  Who has waited longest since the last one comes
first.  A sheet goes to the evaluator that has it in memory; where that one is busy it waits for a
moment, and then goes to another, which has it for a while.  Somebody whose lines run into limits
again and again is slowed, and told so; together with others of that kind they never have all
evaluators, and where there is one aside for them they have only that.  An address counts lightly:
where lines from it ran into limits, somebody new there begins at the back, the further the less
they typed so far, until they have typed for a while; nobody else is slowed for a neighbour.
"""

from __future__ import annotations

import threading
import time
from collections import OrderedDict, defaultdict, deque
from collections.abc import Callable
from dataclasses import dataclass, field
from zlib import crc32

WAIT_SECONDS = 0.05
"""How long work waits for the evaluator that has its sheet, before it takes another: about as
long as it takes to read a sheet."""

LONGEST_WAIT = 8.0
"""How long it waits for any."""

MOST_WAITING = 6
"""Pieces of work of one person that wait."""

REMEMBERED = 60.0
"""Seconds for which it counts that somebody ran into a limit."""

FREE_HITS, FREE_OF_ADDRESS = 3, 2
"""How often a person may do so before they are slowed, and all at one address before whoever is
new there begins at the back."""

PROVEN_BY, PROVEN_AFTER = 4, 20.0
"""Pieces of work and seconds after which somebody is new no more."""

MOVED_SECONDS = 10.0
"""How long a sheet stays with the evaluator that it moved to, where its own is free again."""

LONGEST_PAUSE = 20.0
MOST_SHEETS = MOST_PEOPLE = 4096
"""Sheets of which it is known that another evaluator has them than their own, and people of whom
it is known how long they are here."""


@dataclass(frozen=True, slots=True)
class Client:
    """Who asks for work: a person's key and an address; either may be empty."""

    person: str = ""
    address: str = ""


NOBODY = Client()


@dataclass(slots=True)
class Seen:
    """When a person was seen first, and how many pieces of work were done for them within their
    limits."""

    first: float
    count: int = 0


class EvaluatorsBusy(Exception):
    """No evaluator became free in time, or too much of the person waits already."""


class PartlyRead(EvaluatorsBusy):
    """The sheet is so large that it is read in parts, of which there is so much by now, in per
    cent: whoever asks again gets more."""

    def __init__(self, percent: int) -> None:
        self.percent = percent


class Overtaken(Exception):
    """Newer work makes this of no use."""


class Slowed(Exception):
    """The person ran into limits so often that they have to wait so many ``seconds``."""

    def __init__(self, seconds: float) -> None:
        self.seconds = seconds


@dataclass(slots=True, eq=False)
class Ticket:
    """Work that waits or is done: ``at`` is the evaluator that does it."""

    sheet: str
    client: Client
    gives_way: bool
    since: float
    called: threading.Event = field(default_factory=threading.Event)
    at: int | None = None
    is_overtaken: bool = False


class Turns:
    """Who has which of ``count`` evaluators; ``aside`` is one more, after these, for those alone
    who run into limits again and again."""

    def __init__(
        self, count: int, clock: Callable[[], float] = time.monotonic, aside: bool = False
    ) -> None:
        self.count = count
        self.clock = clock
        self.aside = frozenset({count} if aside else ())
        self._lock = threading.Lock()
        self._waiting: list[Ticket] = []
        self._running: dict[int, Ticket] = {}
        self._served: OrderedDict[str, float] = OrderedDict()
        self._moved: OrderedDict[str, tuple[int, float]] = OrderedDict()
        self._hits: defaultdict[str, deque[float]] = defaultdict(deque)
        self._seen: OrderedDict[str, Seen] = OrderedDict()

    def take(self, sheet: str, client: Client = NOBODY, gives_way: bool = False) -> Ticket:
        """Waits for an evaluator.  Work that ``gives_way`` is dropped where the same asker
        wants more of that kind on the same sheet.

        Errors: :class:`EvaluatorsBusy`, :class:`Overtaken`, :class:`Slowed`.
        """
        ticket = Ticket(sheet, client, gives_way, self.clock())
        with self._lock:
            self._admit(ticket)
            self._waiting.append(ticket)
            self._call()
        deadline = ticket.since + LONGEST_WAIT
        while not ticket.called.wait(min(WAIT_SECONDS, max(0.001, deadline - self.clock()))):
            with self._lock:
                if ticket.at is None and self.clock() >= deadline:
                    self._waiting.remove(ticket)
                    raise EvaluatorsBusy
                self._call()
        if ticket.is_overtaken:
            raise Overtaken
        return ticket

    def give_back(self, ticket: Ticket, was_at_limit: bool = False) -> None:
        """Its work is done; ``was_at_limit`` where it ran into one."""
        with self._lock:
            now = self.clock()
            self._note(ticket.client.person, not was_at_limit)
            if was_at_limit and not ticket.gives_way:
                for key in (ticket.client.person, ticket.client.address):
                    if key:
                        self._hits[key].append(now)
            if ticket.at is not None:
                del self._running[ticket.at]
            self._served[ticket.client.person] = now
            self._served.move_to_end(ticket.client.person)
            while len(self._served) > MOST_SHEETS:
                self._served.popitem(last=False)
            self._call()

    def at_work(self, sheet: str) -> list[int]:
        """The evaluators that work on a sheet just now."""
        with self._lock:
            return [at for at, ticket in self._running.items() if ticket.sheet == sheet]

    # -- with the lock held ----------------------------------------------------------

    def _admit(self, ticket: Ticket) -> None:
        person = ticket.client.person
        if not person:
            return
        if not ticket.gives_way:
            pause = self._pause(person)
            if pause > 0:
                raise Slowed(pause)
        own = [one for one in self._waiting if one.client.person == person]
        for one in own:
            if ticket.gives_way and one.gives_way and one.sheet == ticket.sheet:
                one.is_overtaken = True
                self._waiting.remove(one)
                one.called.set()
        if sum(not one.is_overtaken for one in own) >= MOST_WAITING:
            raise EvaluatorsBusy

    def _pause(self, person: str) -> float:
        """How long a person has to wait for the next piece of work."""
        hits = self._recent(person)
        if len(hits) < FREE_HITS:
            return 0
        pause: float = min(LONGEST_PAUSE, 2.0 ** (len(hits) - FREE_HITS))
        return hits[-1] + pause - self.clock()

    def _recent(self, key: str) -> deque[float]:
        hits = self._hits.get(key)
        if hits is None:
            return deque()
        while hits and hits[0] < self.clock() - REMEMBERED:
            hits.popleft()
        if not hits:
            del self._hits[key]
        return hits

    def _note(self, person: str, is_well: bool) -> None:
        """Takes down that work was done for a person."""
        seen = self._seen.setdefault(person, Seen(self.clock()))
        seen.count += is_well
        self._seen.move_to_end(person)
        while len(self._seen) > MOST_PEOPLE:
            self._seen.popitem(last=False)

    def _begins_behind(self, client: Client) -> bool:
        """Whether they are new at an address from which lines ran into limits just now."""
        if len(self._recent(client.address)) < FREE_OF_ADDRESS:
            return False
        seen = self._seen.get(client.person)
        is_proven = seen is not None and (
            seen.count >= PROVEN_BY and self.clock() >= seen.first + PROVEN_AFTER
        )
        return not is_proven

    def _place_behind(self, client: Client) -> int:
        """How far behind all others they begin: those who typed nothing yet are the last."""
        if not self._begins_behind(client):
            return 0
        seen = self._seen.get(client.person)
        return 1 + PROVEN_BY - (min(seen.count, PROVEN_BY) if seen else 0)

    def _is_watched(self, client: Client) -> bool:
        """Whether their work may be long: they never have all evaluators."""
        return bool(self._recent(client.person)) or self._begins_behind(client)

    def _is_set_aside(self, ticket: Ticket) -> bool:
        """Whether their work is done apart from that of all others: for what they did themselves,
        or what is kept by somebody new where others did.  What they type is read like that of
        all."""
        if not self.aside:
            return False
        client = ticket.client
        is_new = not ticket.gives_way and self._begins_behind(client)
        return is_new or bool(self._recent(client.person))

    def _call(self) -> None:
        """Gives free evaluators to those who wait, the person first who had none longest."""
        free = [at for at in (*range(self.count), *self.aside) if at not in self._running]
        if not free:
            return
        served, now = self._served, self.clock()
        busy = {ticket.client.person for ticket in self._running.values()} - {""}
        watched = sum(
            self._is_watched(ticket.client)
            for at, ticket in self._running.items()
            if at not in self.aside
        )
        for ticket in sorted(
            self._waiting,
            key=lambda one: (
                self._place_behind(one.client),
                served.get(one.client.person, 0.0),
                one.since,
            ),
        ):
            if ticket.client.person in busy:
                continue
            if self._is_set_aside(ticket):
                is_watched, at = False, next((at for at in free if at in self.aside), None)
            else:
                is_watched = self._is_watched(ticket.client)
                if is_watched and watched >= max(1, self.count - 1):
                    continue
                at = self._place_for(ticket, [at for at in free if at not in self.aside], now)
            if at is None:
                continue
            free.remove(at)
            self._waiting.remove(ticket)
            self._running[at] = ticket
            ticket.at = at
            ticket.called.set()
            watched += is_watched
            if ticket.client.person:
                busy.add(ticket.client.person)
            if not free:
                return

    def _place_for(self, ticket: Ticket, free: list[int], now: float) -> int | None:
        """The evaluator that has the sheet; another one where that is busy for long."""
        own = crc32(ticket.sheet.encode()) % self.count
        home, until = self._moved.get(ticket.sheet, (own, 0.0))
        if now > until and own in free:
            home = own
        if home not in free:
            if not free or now < ticket.since + WAIT_SECONDS:
                return None
            home, until = free[0], now + MOVED_SECONDS
        if home == own:
            self._moved.pop(ticket.sheet, None)
        else:
            self._moved[ticket.sheet] = home, until
            self._moved.move_to_end(ticket.sheet)
        while len(self._moved) > MOST_SHEETS:
            self._moved.popitem(last=False)
        return home
