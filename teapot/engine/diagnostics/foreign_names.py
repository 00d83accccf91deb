"""Names that several languages and many desks have for a function, and what it is here.

Common practice of the trade; a name that only one program has does not belong here: a
near name or the words of the handbook lead from it to what is meant.
"""

NAMES = {
    "tg": "tan", "ctg": "cot", "cotg": "cot", "cotan": "cot", "cosec": "csc",
    "arctg": "arctan", "arcctg": "arccot", "arccotan": "arccot", "arcotan": "arccot",
    "arccosec": "arccsc", "arctan2": "arctan",
    "sh": "sinh", "ch": "cosh", "th": "tanh", "tgh": "tanh", "cth": "coth", "ctgh": "coth",
    "arsh": "arsinh", "arch": "arcosh", "arth": "artanh", "arcsinh": "arsinh",
    "arccosh": "arcosh", "arctanh": "artanh", "arccoth": "arcoth",
    "rem": "remainder", "mod": "remainder", "modulo": "remainder", "fmod": "remainder",
    "div": "quotient", "idiv": "quotient", "pow": "power", "sqr": "sqrt", "squareroot": "sqrt",
    "cuberoot": "cbrt", "curt": "cbrt", "nroot": "root", "nthroot": "root",
    "fact": "factorial", "fac": "factorial", "comb": "binomial", "combinations": "binomial",
    "choose": "binomial", "perm": "permutations", "isprime": "is_prime", "prime": "is_prime",
    "length": "count", "len": "count", "size": "count",
    "average": "mean", "avg": "mean", "ave": "mean", "std": "stdev", "stddev": "stdev",
    "sd": "stdev", "var": "variance", "sem": "stdev_of_mean", "stderr": "stdev_of_mean",
    "standard_error": "stdev_of_mean", "total": "sum", "prod": "product", "cumsum": "cumulative",
    "maximum": "max", "minimum": "min", "largest": "max", "smallest": "min",
    "real": "re", "imag": "im", "imaginary": "im", "phase": "arg", "angle": "arg",
    "conjugate": "conj", "mag": "abs", "magnitude": "abs", "modulus": "abs",
    "absolute": "abs", "fabs": "abs", "int": "trunc", "integer": "trunc", "fix": "trunc",
    "rand": "random", "lngamma": "lgamma", "gammaln": "lgamma", "loggamma": "lgamma",
    "log_e": "ln", "loge": "ln", "ld": "lb", "input": "ask", "prompt": "ask",
    "deg": "degrees", "degree": "degrees", "rad": "radians", "radian": "radians",
    "time": "now", "distinct": "unique", "concat": "join", "concatenate": "join",
    "inner": "dot", "scalar": "dot", "vec": "cross", "isna": "is_missing", "isnull": "is_missing",
    "regression": "least_squares", "linreg": "least_squares", "fit": "least_squares",
    "groupby": "group", "describe": "overview", "summary": "overview",
    **{
        f"{called}_{which}": f"{name}_{here}"
        for name, others in (
            ("normal", ("norm", "gauss", "gaussian", "z", "normal")),
            ("student", ("t", "student_t", "students_t", "student")),
            ("chi_squared", ("chi2", "chisq", "chi_square", "chi", "chi_squared")),
            ("f", ("fisher", "f")),
        )
        for called in others
        for which, here in (
            ("pdf", "pdf"), ("cdf", "cdf"), ("quantile", "quantile"), ("inv", "quantile"),
            ("density", "pdf"), ("cumulative", "cdf"),
        )
        if called != name or which != here
    },
}  # fmt: skip
"""A function of the language for each."""

WRITTEN = {
    "square": "{0}^2", "squared": "{0}^2", "cube": "{0}^3", "cubed": "{0}^3",
    "inverse": "1/{0}", "reciprocal": "1/{0}", "not": "not {0}",
    "hex": "{} as hex", "bin": "{} as binary", "binary": "{} as binary", "oct": "{} as octal",
    "octal": "{} as octal", "decimal": "{} as decimal", "fraction": "{} as fraction",
    "frac_of": "{} as fraction", "percent": "{} as percent", "percentage": "{} as percent",
    "scientific": "{} as scientific", "polar": "{} as polar", "dms": "{} as dms",
    "print": "{}", "echo": "{}", "display": "{}", "eval": "{}", "float": "{}",
    "evaluate": "{}", "simplify": "{}", "calculate": "{}", "number": "{}",
    "rms": "sqrt(mean({0}^2))", "geomean": "exp(mean(ln({})))", "gmean": "exp(mean(ln({})))",
    "geometric_mean": "exp(mean(ln({})))", "hmean": "1/mean(1/{0})",
    "harmonic_mean": "1/mean(1/{0})",
    "expm1": "exp({}) - 1", "log1p": "ln(1 + {0})", "log10p": "lg(1 + {0})",
}  # fmt: skip
"""What is written for a call with one argument: ``{0}`` is that argument, in brackets
where it needs them, and ``{}`` as it is typed.  One that is among :data:`NAMES` too is
so written for a list only."""

WRITTEN_WITH_TWO = {
    "polar": "{}∠{}",
    "percentile": "quantile({}, {}/100)",
}
"""The same with two arguments, in brackets where they need them."""

MISSING_FEATURES = {
    **dict.fromkeys(
        ("integrate", "int_", "quad"), "An integral is written integral(x^2, x = 0..1)."
    ),
    **dict.fromkeys(
        ("diff", "differentiate", "deriv", "grad_of"),
        "A derivative at a place is written derivative(x^2, x = 3).",
    ),
    **dict.fromkeys(
        ("root_of", "roots_of", "zero", "solver"),
        "Solutions are found with solve(x^2 == 5, x), or in a range: solve(cos(t) == t, t = 0..2).",
    ),
    **dict.fromkeys(("limit", "lim"), "Teapot does not take limits."),
    **dict.fromkeys(("expand", "factorize", "collect"), "Teapot does not rearrange expressions."),
    **dict.fromkeys(
        ("plot", "draw", "chart"), "A graph is written graph(sin(x)/x, x = -10..10)."
    ),
    **dict.fromkeys(
        ("matrix",), "A matrix is written with its rows: [1, 2; 3, 4]."
    ),
    **dict.fromkeys(("histogram", "hist"),
                    "The histogram of a list is shown in the workings of its line."),
    **dict.fromkeys(("scatter", "scatterplot"),
                    "A line with slope(x, y) has a picture of the two lists."),
    **dict.fromkeys(("taylor", "maclaurin", "series"), "Teapot does not expand in series."),
    **dict.fromkeys(("rank", "trace", "eye", "identity"),
                    "For matrices there are det, inverse, transpose, dot and solve."),
    **dict.fromkeys(("eig", "eigenvalues", "eigenvectors"), "Teapot has no eigenvalues."),
    **dict.fromkeys(("curl",), "Teapot has no vector analysis."),
    **dict.fromkeys(("for", "while", "loop", "repeat"), "Teapot has no loops: lists do each item."),
    **dict.fromkeys(("import", "include", "from", "def", "function", "return", "lambda"),
                    "This is a word of other languages; f(x) = x^2 makes a function here."),
}  # fmt: skip
"""What nothing in the language does, said plainly, in place of a name that happens to be
spelt alike."""
