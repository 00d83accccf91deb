"""The operators and other signs, tightest first, as the handbook tells of them."""

from __future__ import annotations

from functools import partial

from teapot.engine.handbook.record import record

_operator = partial(record, source="ISO 80000-2")

OPERATORS = (
    _operator(
        "item", "[ ]", "w[n]", "An item of a list, counted from 1; with a range, that part.",
        (("[4, 5, 6][2]", "=", "5"), ("[4, 5, 6][2..3]", "=", "[5, 6]")),
        "index element subscript slice part of a list", ("list", "first", "last"),
    ),
    _operator(
        "factorial-sign", "!", "n!", "The factorial: the product of the whole numbers up to n.",
        (("5!", "=", "120"), ("3!^2", "=", "36")),
        "factorial exclamation mark", ("factorial",), "not: that is written not.",
    ),
    _operator(
        "percent-sign", "%", "x%", "A hundredth part.",
        (("12.5%", "=", "0.125"), ("200*15%", "=", "30")),
        "percent percentage hundredth", ("percent",),
        "the remainder of a division: that is written mod.",
    ),
    _operator(
        "degree-sign", "°", "x°", "An angle in degrees; with ′ and ″ its minutes and seconds.",
        (("30°", "=", "30°"), ("12°30′15″ as deg", "≈", "12.50416667°"),
         ("90° as rad", "=", "(pi/2) rad")),
        "degree degrees minutes seconds angle arc type a degree sign deg", ("deg", "dms"),
    ),
    _operator(
        "unit", "deg rad gon turn", "x rad",
        "A number with the unit of an angle after it: also arcmin, arcsec, mas, mrad and µrad.",
        (("0.5 rad + 0.25 rad", "=", "0.75 rad"), ("100 gon as deg", "=", "90°"),
         ("(1/2) turn as deg", "=", "180°"), ("5 arcmin as arcsec", "=", "300 arcsec"),
         ("0.1° as mrad", "≈", "1.745329252 mrad")),
        "unit of an angle radian degree gon gradian turn revolution arcminute arcsecond arcsec "
        "arcmin seconds of arc minutes of arc milliarcsecond milliradian mrad",
        ("degree-sign", "rad"),
        "a factor: the unit belongs to the number before it alone; write (1/2) turn.",
    ),
    _operator(
        "superscript", "² ³", "x²", "A power typed as a raised figure.",
        (("3²", "=", "9"), ("2³ + 1", "=", "9")),
        "square cube squared cubed superscript raised", ("power-sign",),
    ),
    _operator(
        "power-sign", "^", "x^y", "A power; powers are done from the right.",
        (("2^10", "=", "1024"), ("2^3^2", "=", "512"), ("27^(1/3)", "=", "3")),
        "power exponent to the power of raise caret **", ("power", "superscript"),
        "x^1/2 as a root: the power binds tighter than the fraction, so it is x^(1/2).",
    ),
    _operator(
        "sign", "-", "-x", "The sign of a number; a power binds tighter.",
        (("-2^2", "=", "-4"), ("(-2)^2", "=", "4")),
        "minus negative sign unary", ("minus",),
        "a part of the number: -2^2 is −(2²).",
    ),
    _operator(
        "root-sign", "√", "√x", "The square root of what follows.",
        (("√49", "=", "7"), ("√(9 + 16)", "=", "5")),
        "square root radical sign", ("sqrt", "cbrt"),
    ),
    _operator(
        "polar-sign", "∠", "r ∠ φ", "A complex number by its modulus and its angle.",
        (("2 ∠ 90°", "=", "2i"), ("5 ∠ 30°", "≈", "4.330127019 + 2.5i")),
        "polar angle phasor modulus argument", ("polar", "arg"),
        "a factor of its own: 5∠30°*2 is (5∠30°)·2, for a phasor is one number.",
    ),
    _operator(
        "plus-minus", "±", "x ± u",
        "A measured value x with its standard uncertainty u, which is carried on to what is "
        "computed from it; also typed +/-. It ranks with + and -; two numbers beside it are one "
        "measured value, which takes the unit after it.",
        (("5.32 ± 0.04 m", "≈", "(5.320 ± 0.040) m"), ("(5 ± 0.1)*2", "≈", "10.00 ± 0.20"),
         ("sqrt(9 ± 0.3)", "≈", "3.000 ± 0.050"), ("5 m ± 2%", "≈", "(5.00 ± 0.10) m")),
        "uncertainty error measurement plus minus tolerance deviation GUM", ("mean", "stdev"),
        "a tolerance: u is a standard deviation. Values that are typed twice are two inputs; a "
        "quantity that is used twice is counted once.",
        source="JCGM 100:2008 (the GUM), 5.2.2 and 7.2.6",
    ),
    _operator(
        "times", "*", "x*y", "A product. Between a number and what follows it, no sign is needed.",
        (("6*7", "=", "42"), ("2 pi", "≈", "6.283185307"), ("(3 + 4)(3 - 4)", "=", "-7")),
        "multiply multiplication times product dot star", ("multiply", "over"),
        "a call: x(3 + 1) with a quantity x needs the sign, x*(3 + 1).",
    ),
    _operator(
        "over", "/", "x/y", "A quotient.",
        (("7/2", "=", "3.5"), ("1/3", "≈", "0.3333333333"), ("7/0", "=", "infinity")),
        "divide division over fraction quotient slash", ("divide", "div"),
        "a fraction bar over all that follows: 1/2*3 is (1/2)·3.",
    ),
    _operator(
        "div", "div", "x div y", "The quotient rounded towards −∞.",
        (("31 div 9", "=", "3"), ("-31 div 9", "=", "-4")),
        "integer division whole quotient floor divide how many times", ("mod", "quotient"),
    ),
    _operator(
        "mod", "mod", "x mod y", "What the quotient rounded towards −∞ leaves.",
        (("31 mod 9", "=", "4"), ("370° mod 360°", "=", "10°")),
        "remainder modulo rest modulus %", ("div", "remainder"),
        "a remainder with the sign of x: it has the sign of y.",
    ),
    _operator(
        "plus", "+", "x + y", "A sum. It joins text too.",
        (("25 + 20", "=", "45"), ("30° + 1°", "=", "31°"), ('"tea" + "pot"', "=", '"teapot"')),
        "add addition sum plus join", ("add", "sum"),
    ),
    _operator(
        "minus", "-", "x - y", "A difference.",
        (("25 - 20", "=", "5"), ("1 - 0.9", "=", "0.1")),
        "subtract subtraction difference minus take away", ("subtract", "sign"),
    ),
    _operator(
        "steps", "..", "a..b by step", "A list of numbers in steps; the step is 1 if left out.",
        (("1..5", "=", "[1, 2, 3, 4, 5]"), ("0..90 by 30", "=", "[0, 30, 60, 90]")),
        "range sequence from to step series of numbers", ("list", "table"),
    ),
    _operator(
        "list", "[a, b]", "[a, b, c]", "A list; operations and functions work item by item.",
        (("[1, 2, 3]*10", "=", "[10, 20, 30]"), ("sqrt([4, 9])", "=", "[2, 3]")),
        "list vector array data several values", ("steps", "item", "count"),
    ),
    _operator(
        "equal", "==", "x == y", "Whether two values are equal.",
        (("0.1 + 0.2 == 0.3", "=", "true"), ("1 == 2", "=", "false")),
        "equal equals same comparison compare", ("about", "assign"),
        "=, which gives a value to a name.",
    ),
    _operator(
        "unequal", "!=", "x != y", "Whether two values differ.",
        (("1 != 2", "=", "true"), ("2/4 != 0.5", "=", "false")),
        "not equal different unequal", ("equal",),
    ),
    _operator(
        "order", "< <= > >=", "x < y", "Which of two numbers is larger; they can be joined.",
        (("2 < 3", "=", "true"), ("1 < 3 <= 3", "=", "true"), ("30° > 0.5 rad", "=", "true")),
        "less greater than at most at least larger smaller compare", ("equal",),
    ),
    _operator(
        "about", "~", "x ~ y", "Whether two values are the same in the digits shown.",
        (("pi ~ 3.141592654", "=", "true"), ("pi ~ 22/7", "=", "false")),
        "approximately equal about roughly nearly", ("equal",),
    ),
    _operator(
        "not", "not", "not a", "True where a is false.",
        (("not 2 > 3", "=", "true"), ("not true", "=", "false")),
        "negation logical inverse opposite", ("and", "or"),
    ),
    _operator(
        "and", "and", "a and b", "True where both are.",
        (("2 < 3 and 3 < 4", "=", "true"), ("true and false", "=", "false")),
        "both logical conjunction &&", ("or", "not"),
    ),
    _operator(
        "or", "or", "a or b", "True where one is, or both are.",
        (("2 > 3 or 3 < 4", "=", "true"), ("false or false", "=", "false")),
        "either logical disjunction ||", ("and", "not"),
    ),
    _operator(
        "assign", "=", "name = x", "Gives a value to a name, or defines a function.",
        (("m = 1.2", "=", "1.2"), ("a = b = 2", "=", "2"),
         ("f(x) = x^2 + 1", "=", "f(x) = x^2 + 1")),
        "assign store variable set value define function of my own let", ("live", "equal"),
        "==, which asks whether two values are equal.",
    ),
    _operator(
        "live", ":=", "name := x", "A live definition: always worked out from what it uses now.",
        (("d := 2 + 3", "=", "5"), ("k(x) := 2x", "=", "k(x) = 2 x")),
        "live definition always recomputed formula depends by definition", ("assign",),
    ),
    _operator(
        "answer", "@", "@ or @7", "The last answer, or the answer of a line: after 6*7, @ is 42.",
        (("6*7", "=", "42"),),
        "last answer previous result ans line", ("assign",),
    ),
    _operator(
        "as", "as", "x as FORM", "Shows an answer in a form.",
        (("1/3 as 4 digits", "≈", "0.3333"), ("255 as hex", "=", "0xFF"),
         ("0.75 as fraction", "=", "3/4")),
        "format form show display convert conversion", ("digits", "deg", "fraction"),
    ),
    _operator(
        "note", "#", "x  # words", "A note; after an assignment it describes the quantity.",
        (("1 + 1  # tea", "=", "2"), ("m = 1.2  # water, kg", "=", "1.2")),
        "comment remark describe note hash", ("assign",),
    ),
    _operator(
        "semicolon", ";", "a; b", "Several statements in a line; one at the end keeps it quiet.",
        (("2; 3", "=", "3"), ("a = 2; a^2", "=", "4")),
        "separate statements semicolon suppress output quiet hide", ("assign",),
    ),
)  # fmt: skip
