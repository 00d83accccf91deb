"""``make prove-digits``: every real function of the catalogue at 1,000 random arguments,
those of complex numbers at 200, their 10 and 30 digits against mpmath at 60, correctly
rounded; and 10,000 random nested expressions in all units of angles against mpmath at 80.
"""

from __future__ import annotations

import sys
from types import ModuleType

from tests.engine import complex_references, references
from tests.engine.nested import differences as nested_differences

COUNT = int(sys.argv[1]) if len(sys.argv) > 1 else 1_000
COMPLEX_COUNT = COUNT // 5
NESTED_COUNT = COUNT * 10


def main() -> int:
    """Prints the count for each function, and every difference; 1 if there is any."""
    differences = _all_of("real", references, COUNT)
    differences += _all_of("complex", complex_references, COMPLEX_COUNT)
    wrong, refused = nested_differences(NESTED_COUNT)
    for one in (*wrong, *refused):
        print(f"    {one}")
    print(
        f"{NESTED_COUNT:,} nested expressions in four units of angles, "
        f"{len(wrong)} differences, {len(refused)} refused"
    )
    differences += len(wrong)
    print(f"{differences} differences")
    return 1 if differences else 0


def _all_of(kind: str, references: ModuleType, count: int) -> int:
    """How many differences there are at so many arguments of each function."""
    differences = 0
    for name in references.REFERENCES:
        found = [
            difference
            for arguments in references.sampled(name, count)
            for digits in (10, 30)
            if (difference := references.proved(name, arguments, digits))
        ]
        differences += len(found)
        print(f"  {name:14}{count:6} arguments, {len(found)} differences", flush=True)
        for difference in found[:5]:
            print(f"    {difference}")
    number = len(references.REFERENCES)
    total = count * number
    print(f"{number} functions of {kind} numbers, {total:,} arguments, {differences} differences")
    return differences


if __name__ == "__main__":
    sys.exit(main())
