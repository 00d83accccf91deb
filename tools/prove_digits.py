"""``make prove-digits``: every real function of the catalogue at 1,000 random
arguments, its 10 and 30 digits against mpmath at 60, correctly rounded."""

from __future__ import annotations

import sys

from tests.engine.references import REFERENCES, proved, sampled

COUNT = int(sys.argv[1]) if len(sys.argv) > 1 else 1_000


def main() -> int:
    """Prints the count for each function, and every difference; 1 if there is any."""
    differences = 0
    for name in REFERENCES:
        found = [
            difference
            for arguments in sampled(name, COUNT)
            for digits in (10, 30)
            if (difference := proved(name, arguments, digits))
        ]
        differences += len(found)
        print(f"  {name:12}{COUNT:6} arguments, {len(found)} differences", flush=True)
        for difference in found[:5]:
            print(f"    {difference}")
    total = COUNT * len(REFERENCES)
    print(f"{len(REFERENCES)} functions, {total:,} arguments, {differences} differences")
    return 1 if differences else 0


if __name__ == "__main__":
    sys.exit(main())
