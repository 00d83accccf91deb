"""The solutions of an equation: of a polynomial all, exactly where they are short; of any other
all in an interval, each proved; of linear equations together."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping, Sequence
from typing import TypeVar, cast

from flint import acb, acb_poly, arb, ctx, fmpq, fmpq_poly, fmpz_poly

from teapot.engine.analysis.bound import USUAL_INTERVAL, Bound, usual_interval
from teapot.engine.analysis.cores import core_of_zeros
from teapot.engine.analysis.polynomials import (
    NoPolynomial,
    Polynomial,
    added,
    coefficients,
    multiplied,
    ratio_of,
    rational_coefficients,
)
from teapot.engine.analysis.reader import ORDERS, Reader, names_in
from teapot.engine.analysis.rings import Nowhere
from teapot.engine.analysis.terms import Op, Var
from teapot.engine.analysis.zeros import Search, Zeros
from teapot.engine.errors import LineError
from teapot.engine.mends import replace
from teapot.engine.numbers import matrices, operators
from teapot.engine.numbers.comparison import compare
from teapot.engine.numbers.complexes import polar
from teapot.engine.numbers.context import (
    NondeterministicInputs,
    Work,
    conventions,
    notice,
    unit,
    working,
)
from teapot.engine.numbers.precision import precision
from teapot.engine.numbers.values import (
    Angle,
    Complex,
    Exact,
    List,
    Measure,
    Number,
    Real,
    Undefined,
    Value,
    bare_size,
    ends_of,
    exact,
    is_fraction,
    is_nought,
    with_size,
)
from teapot.engine.reading.plain import node_text
from teapot.engine.reading.tree import Comparison, ListOf, Name, Node
from teapot.engine.sentences.analysis import (
    ALL_SOLUTIONS,
    EVERY_VALUE,
    NO_INEQUALITY,
    NO_REAL_SOLUTION,
    NO_SOLUTION,
    NO_SOLUTION_AT_ALL,
    NONE_DECIDED,
    NOT_LINEAR,
    NOT_REAL_LEFT_OUT,
    ONLY_SOLUTION,
    ROOTS_ALIKE,
    SINGULAR_SYSTEM,
    SOLVED_ALL_OVER_A_PART,
    SOME_UNDECIDED,
    TIMES_OVER,
    WANTS_ENDS,
    WANTS_EQUATION,
    WANTS_INTERVAL,
    WANTS_NAME,
)

MOST_UNKNOWNS = 20


def solve(bound: Bound) -> Value:
    """The value that solves an equation, or the list of all.

    Errors: a sentence where there is none, or where an interval is wanted.
    """
    if bound.named:
        equation, name, where = bound.one()
        return _in_interval(bound, equation, name, where)
    if len(bound.args) != 2:
        raise WANTS_NAME()
    equation, unknown = bound.args
    if not has_equation(equation):
        if isinstance(unknown, Name) and unknown.name in names_in(equation):
            such = f"{node_text(equation)} == 0"
            raise WANTS_EQUATION(equation.span, (replace(equation.span, such),), such=such)
        return _of_matrix(bound.plain(equation), bound.plain(unknown))
    if isinstance(unknown, ListOf):
        return _system(bound, equation, unknown)
    if not isinstance(unknown, Name):
        raise WANTS_NAME(unknown.span)
    return _of_polynomial(bound, equation, unknown)


def has_equation(node: Node) -> bool:
    """Whether there is an equation, or a list with one."""
    rows = node.items if isinstance(node, ListOf) else (node,)
    return any(isinstance(one, Comparison) for one in rows)


def _of_matrix(of: Value, right: Value) -> Value:
    """The x with A x = b: a vector for a vector, a matrix for a matrix."""
    if not matrices.is_matrix(of):
        raise WANTS_NAME()
    if matrices.is_matrix(right):
        return matrices.matrix(matrices.solved(of, matrices.rows_of(right)))
    if not isinstance(right, List):
        raise WANTS_NAME()
    return List(tuple(row[0] for row in matrices.solved(of, [[one] for one in right.items])))


def sides(node: Node) -> tuple[Node, Node]:
    """The two sides of an equation.  Errors: :data:`WANTS_EQUATION`, :data:`NO_INEQUALITY`."""
    if isinstance(node, Comparison) and len(node.ops) == 1 and node.ops[0] in ORDERS:
        border = " == ".join(map(node_text, node.operands))
        raise NO_INEQUALITY(node.span, (replace(node.span, border),), such=border)
    if not isinstance(node, Comparison) or node.ops != ("==",):
        raise WANTS_EQUATION(node.span, such=f"{node_text(node)} == 0")
    return node.operands[0], node.operands[1]


# -- polynomials -----------------------------------------------------------------------------


def _of_polynomial(bound: Bound, equation: Node, unknown: Name) -> Value:
    try:
        above, below = _difference(bound, equation, unknown.name)
        found = _quietly(above, below)
    except NoPolynomial as reason:
        text = node_text(equation)
        where = f"{unknown.name} = {usual_interval(text)}"
        such = f"solve({text}, {where})"
        problem = ROOTS_ALIKE if isinstance(reason, NotToldApart) else WANTS_INTERVAL
        error = problem(equation.span, such=such)
        error.mends = (replace(unknown.span, where),)
        raise error from None
    times = [count for _, count in found]
    if any(count > 1 for count in times):
        notice(TIMES_OVER, times=", ".join(f"{count}×" for count in times))
    values = [value for value, _ in found]
    if conventions().numbers == "real":
        values = [one for one in values if not isinstance(bare_size(one), Complex)]
        if not values:
            raise NO_SOLUTION_AT_ALL()
    return values[0] if len(values) == 1 else List(tuple(values))


def _difference(bound: Bound, equation: Node, name: str) -> tuple[Polynomial, Polynomial]:
    """What stands above and below in one side less the other.  Errors: :class:`NoPolynomial`."""
    first, second = (ratio_of(side, [name], bound.of) for side in sides(equation))
    if first.below == second.below:
        return added(first.above, second.above, "-"), first.below
    left, right = multiplied(first.above, second.below), multiplied(second.above, first.below)
    return added(left, right, "-"), multiplied(first.below, second.below)


Root = tuple[Value, int]
"""A root and how often it counts."""


T = TypeVar("T")


def quietly(compute: Callable[[], T]) -> T:
    """What is computed among the complex numbers, without what is noticed on the way to it."""
    told = dataclasses.replace(conventions(), numbers="complex")
    with working(Work(told, draws=NondeterministicInputs(sealed=True))) as work:
        found = compute()
    if work.used_unit:
        unit()
    return found


def _quietly(above: Polynomial, below: Polynomial) -> list[Root]:
    return quietly(lambda: _roots(above, below))


def _roots(above: Polynomial, below: Polynomial) -> list[Root]:
    """The roots of what stands above at which what stands below is not 0."""
    if not above:
        raise EVERY_VALUE()
    if [*above] == [(0,)]:
        raise NO_SOLUTION_AT_ALL()
    fractions, under = rational_coefficients(above), rational_coefficients(below)
    if fractions is not None and under is not None:
        poly, beneath = fmpq_poly(fractions), fmpq_poly(under)
        while poly.gcd(beneath).degree() > 0:
            poly //= poly.gcd(beneath)
        found = _rational_roots(poly)
        if not found:
            raise NO_SOLUTION_AT_ALL()
        return found
    values = coefficients(above)
    zeros = next(place for place, one in enumerate(values) if not is_nought(one))
    left = zeros - min(power for (power,) in below)
    roots: list[Root] = [(exact(0), left)] if left > 0 else []
    return roots + _without_those(_beside_nought(values[zeros:]), below)


def _without_those(roots: list[Root], below: Polynomial) -> list[Root]:
    """The roots, where none of them is one of what stands below too.

    Errors: :class:`NotToldApart` where one may be.
    """
    if len(below) > 1:
        with precision(ISOLATING):
            under = [_ball_of(bare_size(one)) for one in coefficients(below)]
            for value, _ in roots:
                place, total = _ball_of(bare_size(value)), acb(0)
                for one in reversed(under):
                    total = total * place + one
                if total.contains(0):
                    raise NotToldApart
    return roots


def _beside_nought(values: Sequence[Value]) -> list[Root]:
    """The roots of a polynomial that is not 0 at 0."""
    if len(values) == 1:
        return []
    if len(values) == 2:
        return [(_over(operators.negate(values[0]), values[1]), 1)]
    if len(values) == 3:
        return _of_second_degree(*values)
    if all(is_nought(one) for one in values[1:-1]):
        power = _over(operators.negate(values[0]), values[-1])
        if isinstance(bare_size(power), Exact | Real):
            return _all_of_power(power, len(values) - 1)
    return _by_size(values)


def _over(a: Value, b: Value) -> Value:
    return operators.operate("/", a, b)


def _of_second_degree(c: Value, b: Value, a: Value) -> list[Root]:
    if is_nought(b):
        under = _over(operators.negate(c), a)
        return _pair(exact(0), _root(under), exact(1), has_middle=False)
    square = operators.operate("^", b, exact(2))
    four = operators.operate("*", exact(4), operators.operate("*", a, c))
    inside = operators.operate("-", square, four)
    twice = operators.operate("*", exact(2), a)
    if is_nought(inside):
        return [(_over(operators.negate(b), twice), 2)]
    return _pair(operators.negate(b), _root(inside), twice)


def _root(value: Value) -> Value:
    return operators.operate("^", value, exact(fmpq(1, 2)))


def _pair(middle: Value, root: Value, over: Value, has_middle: bool = True) -> list[Root]:
    if has_middle:
        both = [operators.operate(sign, middle, root) for sign in "-+"]
    else:
        both = [operators.negate(root), root]
    values = [_over(one, over) for one in both] if over != exact(1) else both
    if not any(isinstance(bare_size(one), Complex) for one in values):
        values.sort(key=_place)
    return [(one, 1) for one in values]


def _place(value: Value) -> float:
    size = bare_size(value)
    assert isinstance(size, Exact | Real)
    return float(size.ball(64).mid())


def _all_of_power(power: Value, degree: int) -> list[Root]:
    """The roots of xⁿ = a for a real a: of a measure the real ones."""
    is_negative = operators.sign_of(cast(Number, bare_size(power))) < 0
    size = operators.negate(power) if is_negative else power
    root = operators.operate("^", size, exact(fmpq(1, degree)))
    real: list[Root] = []
    others: list[Root] = []
    for half_turns in range(is_negative, 2 * degree, 2):
        if half_turns == 0:
            real.append((root, 1))
        elif half_turns == degree:
            real.insert(0, (operators.negate(root), 1))
        elif not isinstance(root, Measure):
            way = polar(exact(1), Exact(fmpq(half_turns, degree), 1))
            others.append((operators.operate("*", root, way), 1))
    if not real + others:
        raise NO_SOLUTION_AT_ALL()
    return real + others


def _by_size(values: Sequence[Value]) -> list[Root]:
    """The roots of a polynomial whose coefficients have units, or are no fractions.

    Errors: :class:`NotToldApart`.
    """
    there = [(power, one) for power, one in enumerate(values) if not is_nought(one)]
    (low, first), (high, last) = there[0], there[-1]
    share = _over(first, last)
    one: Value = exact(1)
    if isinstance(share, Measure):
        one = operators.operate("^", with_size(share, exact(1)), exact(fmpq(1, high - low)))
    numbers = [bare_size(one) for one in values]
    fractions = [one.coefficient for one in numbers if isinstance(one, Exact) and one.is_rational]
    if len(fractions) == len(numbers):
        found = _rational_roots(fmpq_poly(fractions))
    else:
        found = _roots_by_balls(numbers)
    return [(with_size(one, value), times) for value, times in found]


class NotToldApart(NoPolynomial):
    """A polynomial of which some roots may be the same, or be none since there is a pole."""


def _roots_by_balls(numbers: Sequence[Value | None]) -> list[Root]:
    """The roots of a polynomial whose coefficients are any numbers, each told apart from all
    others: real ones first, in their order.

    Errors: :class:`NotToldApart`.
    """
    with precision(ISOLATING):
        balls = _balls_of(numbers)
    is_real = not any(isinstance(one, Complex) for one in numbers)
    if is_real:
        balls = [acb(one.real) if one.overlaps(one.conjugate()) else one for one in balls]
    return _real_first([(_root_near(lambda: _balls_of(numbers), ball), 1) for ball in balls])


def _real_first(roots: list[Root]) -> list[Root]:
    """The real ones first, in their order."""
    real = [one for one in roots if not isinstance(one[0], Complex)]
    others = [one for one in roots if isinstance(one[0], Complex)]
    return sorted(real, key=lambda one: _place(one[0])) + others


def _balls_of(numbers: Sequence[Value | None]) -> list[acb]:
    """A ball for each root, apart from all others.  Errors: :class:`NotToldApart`."""
    try:
        return acb_poly([*map(_ball_of, numbers)]).roots(tol=arb(2) ** -(ctx.prec // 2))
    except ValueError:
        raise NotToldApart from None


def _ball_of(number: Value | None) -> acb:
    if isinstance(number, Complex):
        return acb(number.re.ball(ctx.prec), number.im.ball(ctx.prec))
    assert isinstance(number, Exact | Real)
    return acb(number.ball(ctx.prec))


def _rational_roots(poly: fmpq_poly) -> list[Root]:
    """All roots of a polynomial with fractions as coefficients: real ones first, in their order."""
    whole = fmpz_poly([int(one) for one in (poly * _common(poly)).coeffs()])
    factors = whole.factor()[1]
    return _real_first(
        [(value, times) for factor, times in factors for value in _of_factor(factor)]
    )


def _common(poly: fmpq_poly) -> int:
    return int(poly.denom())


def _of_factor(factor: fmpz_poly) -> list[Value]:
    """The roots of a polynomial that has no factors."""
    numbers = [exact(int(one)) for one in factor.coeffs()]
    if len(numbers) == 2:
        return [_over(operators.negate(numbers[0]), numbers[1])]
    if len(numbers) == 3:
        return [value for value, _ in _of_second_degree(*numbers)]
    with precision(ISOLATING):
        balls = _complex_roots(factor)
    return [_root_near(lambda: _complex_roots(factor), ball) for ball in balls]


ISOLATING = 128
"""Binary digits with which the roots of a polynomial are told apart."""


def _complex_roots(factor: fmpz_poly) -> list[acb]:
    """A ball for each root, apart from all others."""
    return [ball for ball, _ in cast(list[tuple[acb, int]], factor.complex_roots())]


def _root_near(roots: Callable[[], list[acb]], first: acb) -> Value:
    """The root of which a ball is known that holds no other; ``roots`` tells all of them with as
    many digits as are asked for."""

    def again() -> acb:
        if ctx.prec <= ISOLATING:
            return first
        return next(ball for ball in roots() if ball.overlaps(first))

    def above() -> arb:
        return again().real

    def beside() -> arb:
        return again().imag

    if first.imag.is_zero():
        return Real(above)
    if first.real.is_zero():
        return Complex(exact(0), Real(beside))
    return Complex(Real(above), Real(beside))


# -- any equation in an interval -----------------------------------------------------------


def _in_interval(bound: Bound, equation: Node, name: str, where: Node) -> Value:
    start, stop = bound.ends(where)
    low, high = bare_size(start), bare_size(stop)
    if not isinstance(low, Exact | Real) or not isinstance(high, Exact | Real):
        raise WANTS_ENDS(where.span, such=f"{name} = {USUAL_INTERVAL}")
    like = start if isinstance(start, Measure | Angle) else stop
    if compare("<", high, low):
        start, stop, low, high = stop, start, high, low
    try:
        above, below = _difference(bound, equation, name)
        roots = [value for value, _ in _quietly(above, below)]
    except NoPolynomial:
        return _isolated(bound, equation, name, like, (low, high))
    except LineError as error:
        if error.is_a(NO_SOLUTION_AT_ALL):
            roots = []
        else:
            raise
    found = [
        one if isinstance(one, Measure | Angle) else with_size(like, one)
        for one in roots
        if not isinstance(bare_size(one), Complex)
    ]
    inside = [
        one
        for one in found
        if compare("<=", start, one) is True and compare("<=", one, stop) is True
    ]
    return _told(inside, "")


Ends = tuple[Number, Number]


def _quiet(bound: Bound) -> Bound:
    """The call, without notices of what is met where it is only looked for solutions."""

    def of(node: Node, given: Mapping[str, Value]) -> Value:
        return quietly(lambda: bound.of(node, given))

    return dataclasses.replace(bound, of=of)


def _isolated(bound: Bound, equation: Node, name: str, like: Value, ends: Ends) -> Value:
    left, right = sides(equation)
    bound = _quiet(bound)
    sample = with_size(like, _between(*ends))
    reader = Reader(bound.of, {name: sample}, {name: Var(name)})
    _check_alike(bound, left, right, name, sample)
    term = Op("-", reader.term(left), reader.term(right))
    whole, search = Search(term, name), Search(core_of_zeros(term), name)
    low, high = (outer(one, up) for one, up in zip(ends, (False, True), strict=True))
    held = _Held(bound, equation, name, like)
    known = frozenset(one.coefficient for one in ends if is_fraction(one) and held.at(one))
    zeros = search.between(low, high, known)
    if zeros.flat == (low, high):
        raise EVERY_VALUE()
    if zeros.flat:
        near = f"{float(sum(zeros.flat, fmpq(0)) / 2):.3g}"  # in the middle of it
        raise SOLVED_ALL_OVER_A_PART(name=name, near=near)
    zeros, known = _with_touching(search, held, zeros, known)
    numbers: list[Number] = [exact(one) for one in known]
    undecided = list(zeros.undecided)
    for a, b in zeros.found:
        number = held.exactly(search, a, b)
        try:
            at = whole.enclosure(number.ball(256))
        except Nowhere:  # it is no real number there
            if conventions().numbers == "complex" and held.at(number):
                numbers.append(number)
            continue
        if at is None or at.below.contains(0):
            undecided.append((a, b))
        elif _is_inside(number, ends):
            numbers.append(number)
    numbers.sort(key=lambda one: float(one.ball(64).mid()))
    is_whole = zeros.is_real or conventions().numbers == "real"
    places = _places(undecided, (high - low) * WIDE)
    return _told([with_size(like, one) for one in numbers], places, is_whole)


def _with_touching(
    search: Search, held: _Held, zeros: Zeros, known: frozenset[fmpq]
) -> tuple[Zeros, frozenset[fmpq]]:
    """The zeros with those short fractions at which the term is 0 and does not change its sign."""
    for part in zeros.undecided[:MOST_TOUCHING]:
        place = held.fraction_in(*part)
        if place is None or place in known:
            continue
        known |= {place}
        low, high = part
        width = high - low
        low, high = low - width, high + width
        about = [search.between(low, place, known), search.between(place, high, known)]
        if any(one.undecided or one.found for one in about):
            continue
        zeros.undecided.remove(part)
    return zeros, known


MOST_TOUCHING = 8


def _between(low: Number, high: Number) -> Number:
    span = operators.operate("-", high, low)
    step = operators.operate("*", span, exact(fmpq(382, 1000)))
    return cast(Number, operators.operate("+", low, step))


def _check_alike(bound: Bound, left: Node, right: Node, name: str, sample: Value) -> None:
    """Errors: where the two sides are of different kinds."""
    values = [bound.of(side, {name: sample}) for side in (left, right)]
    if not any(isinstance(one, Undefined) for one in values):
        compare("==", *values)


def outer(number: Number, up: bool) -> fmpq:
    if isinstance(number, Exact) and number.is_rational:
        return number.coefficient
    low, high = ends_of(number.ball(256), 256)
    return high if up else low


def _is_inside(number: Number, ends: Ends) -> bool:
    low, high = ends
    return compare("<", number, low) is not True and compare(">", number, high) is not True


class _Held:
    """Whether an equation holds exactly at a number."""

    def __init__(self, bound: Bound, equation: Node, name: str, like: Value) -> None:
        self.bound = bound
        self.sides = sides(equation)
        self.name = name
        self.like = like

    def at(self, number: Number) -> bool:
        given = {self.name: with_size(self.like, number)}
        try:
            return compare("==", *(self.bound.of(side, given) for side in self.sides)) is True
        except LineError:
            return False

    def fraction_in(self, low: fmpq, high: fmpq) -> fmpq | None:
        """A short fraction in a narrow part, at which the equation holds."""
        for below in DENOMINATORS:
            whole = round((low + high) / 2 * below)
            place = fmpq(int(whole), below)
            if low <= place <= high and self.at(exact(place)):
                return place
        return None

    def exactly(self, search: Search, low: fmpq, high: fmpq) -> Number:
        """The zero in an interval: a short fraction, or a part of π, where it is one."""
        return exactly_there(search, low, high, self.at)


def exactly_there(search: Search, low: fmpq, high: fmpq, holds: Callable[[Number], bool]) -> Number:
    """The zero in an interval: the short fraction or part of π at which it ``holds``, if one."""
    number = search.number(low, high)
    ball = number.ball(96)
    for pi_power in (0, 1):
        with precision(96):
            size = ball / arb.pi() if pi_power else ball
        for denominator in DENOMINATORS:
            with precision(96):
                whole = (size * denominator).unique_fmpz()
            if whole is None:
                continue
            short = Exact(fmpq(int(whole), denominator), pi_power if whole else 0)
            if ball.overlaps(short.ball(96)) and holds(short):
                return short
    return number


DENOMINATORS = (1, 2, 3, 4, 5, 6, 8, 10, 12)


def _told(values: list[Value], undecided: str, is_whole: bool = True) -> Value:
    """The solutions, with what is proved of them; that there are no others only where the
    ``is_whole`` range was looked through, and no place is ``undecided``."""
    if not values:
        if not is_whole:
            raise NO_REAL_SOLUTION()
        if undecided:
            raise NONE_DECIDED(places=undecided)
        raise NO_SOLUTION()
    if undecided:
        notice(SOME_UNDECIDED, places=undecided)
    elif is_whole:
        notice(ALL_SOLUTIONS if len(values) > 1 else ONLY_SOLUTION, count=len(values))
    if not is_whole:
        notice(NOT_REAL_LEFT_OUT)
    return values[0] if len(values) == 1 else List(tuple(values))


def _places(undecided: list[tuple[fmpq, fmpq]], wide: fmpq) -> str:
    """Where it is not decided: near some numbers, and between others where a part is ``wide``."""
    near = list(dict.fromkeys(_text(a, b) for a, b in sorted(undecided) if b - a <= wide))
    parts = sorted((a, b) for a, b in undecided if b - a > wide)
    between = [f"between {_text(a, a)} and {_text(b, b)}" for a, b in parts]
    told = [f"near {_first_of(near)}"] if near else []
    return " and ".join([*told, *([_first_of(between)] if between else [])])


WIDE = fmpq(1, 1000)
"""Share of a range from which on a part of it is no place."""


def _first_of(places: list[str]) -> str:
    return ", ".join(places[:3]) + (" and others" if len(places) > 3 else "")


def _text(a: fmpq, b: fmpq) -> str:
    with precision(64):
        middle = arb((a + b) / 2)
        if abs(middle) < arb(b - a) * 4:
            return "0"
        return str(middle.str(6, radius=False))


# -- linear equations together ------------------------------------------------------------------


def _system(bound: Bound, equations: Node, unknown: ListOf) -> Value:
    names = []
    for one in unknown.items:
        if not isinstance(one, Name):
            raise WANTS_NAME(one.span)
        names.append(one.name)
    rows = equations.items if isinstance(equations, ListOf) else (equations,)
    if not names or len(names) > MOST_UNKNOWNS or len(rows) < len(names):
        raise SINGULAR_SYSTEM()
    matrix = [_linear(bound, row, names) for row in rows]
    found = matrices.eliminated(matrix, len(names))
    if found is None:
        raise SINGULAR_SYSTEM()
    return List(tuple(value for [value] in found))


def _linear(bound: Bound, equation: Node, names: list[str]) -> list[Value]:
    """The coefficients of the names, and the constant on the right."""
    try:
        first, second = (ratio_of(side, names, bound.of) for side in sides(equation))
        left, right = multiplied(first.above, second.below), multiplied(second.above, first.below)
        whole = added(left, right, "-")
    except NoPolynomial:
        raise NOT_LINEAR(equation.span, typed=node_text(equation)) from None
    if any(sum(powers) > 1 for powers in whole):
        raise NOT_LINEAR(equation.span, typed=node_text(equation))
    places = range(len(names))
    row = [whole.get(tuple(int(at == other) for other in places), exact(0)) for at in places]
    return [*row, operators.negate(whole.get((0,) * len(names), exact(0)))]
