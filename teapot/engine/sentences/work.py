"""Of limits of work."""

from teapot.engine.errors import Problem

TOO_SLOW = Problem(
    "too-slow",
    "This takes more than {seconds:g} s of computing time, and was stopped.",
)

STARVED = Problem(
    "starved",
    "The server is very busy: this got too little computing time within {seconds:g} s. Try again.",
)

NOT_IN_TIME = Problem("not-in-time", "This could not be worked out in time. Try again.")

STOPPED_BY_HAND = Problem("stopped-by-hand", "Stopped.")

TOO_MUCH_MEMORY = Problem("too-much-memory", "This needs more memory than a line may use.")

UNFORESEEN = Problem(
    "unforeseen",
    "Teapot failed on this line. The failure was logged, and your line is still in the entry.",
)

BUSY = Problem("busy", "Teapot is busy with other lines. Try again in a moment.")

STILL_READING = Problem(
    "still-reading",
    "This sheet is so long that it is read in parts: {percent} % so far.",
)

SLOWED_DOWN = Problem(
    "slowed-down",
    "Your lines have reached a limit again and again. The next one starts in {seconds} s.",
)
