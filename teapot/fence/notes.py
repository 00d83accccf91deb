"""What is noted of a result for those who pass it on unread."""

from __future__ import annotations

NEEDS_SYNC = "needs sync"
"""More is to be sent first: the same evaluator is asked again."""

AT_LIMIT = "at a limit"
"""The work ran into a limit of time or memory."""
