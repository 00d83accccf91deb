"""What is done here in another way than with a function or a sign, and what is not here."""

from __future__ import annotations

from teapot.engine.handbook.record import record

TOPICS = (
    record(
        "undo", "Ctrl+Z", "Ctrl+Z, Ctrl+Shift+Z",
        "With an empty entry Ctrl+Z takes the last change back, a line too, and Ctrl+Shift+Z does "
        "it again; a line has its menu for deleting and moving it.",
        (),
        "undo redo take back delete remove a line mistake mend edit change correct",
    ),
    record(
        "keys", "F1", "F1, Tab, ↑, Esc",
        "F1 opens the handbook at what is typed, Tab completes, ↑ brings earlier lines back, Esc "
        "drops what is begun; the menu of the sheet lists all keys.",
        (),
        "keyboard shortcuts keys hotkeys history complete completion arrow",
    ),
    record(
        "greek", r"\alpha", r"\alpha and Tab",
        "A Greek letter, or another sign, by its name: type a backslash, the name, and Tab. A name "
        "such as alpha is shown as the letter.",
        (("α = 30°; sin(α)", "=", "0.5"),),
        "Greek letters alpha beta gamma delta epsilon theta lambda mu pi rho sigma tau phi omega "
        "symbol sign special character insert",
        ("degree-sign",),
    ),
    record(
        "saving", "save", "Save or print …",
        "Every line is kept as soon as it is answered. The menu of the sheet prints it, or saves "
        "it as PDF, HTML, LaTeX, Markdown, text or JSON.",
        (),
        "save as pdf print export download file word latex html paper share copy",
    ),
    record(
        "text", '"{x}"', '"… {x} …"',
        "Text with values: what stands in braces is worked out and filled in, with a form if "
        "wanted.",
        (("m = 2 kg; \"mass: {m}\"", "=", '"mass: 2 kg"'),
         ("\"about {2/3 as 2 digits}\"", "≈", '"about 0.67"')),
        "text string words with values fill in braces format label output print",
        ("plus",),
    ),
    record(
        "uncertain", "error", "f(x ± u)",
        "What is computed from measured values carries their standard uncertainty on, each input "
        "counted once; the workings show the share of each.",
        (("(2.0 ± 0.1 m)*(3.0 ± 0.1 m)", "≈", "(6.00 ± 0.36) m^2"),
         ("relative(5 ± 0.1 m) as percent", "=", "2%")),
        "error propagation uncertainty Gaussian combined standard measured law of propagation",
        ("plus-minus", "uncertainty", "stdev_of_mean"),
        source="JCGM 100, 5.1.2",
    ),
    record(
        "angle-between", "vectors", "arccos(sum(v*w)/…)",
        "The angle between two vectors: the arc cosine of their product over their lengths.",
        (("v = [1, 0]; w = [1, 1]; arccos(sum(v*w)/sqrt(sum(v^2)*sum(w^2))) as deg", "=", "45°"),),
        "angle between vectors dot product scalar inner length norm vector",
        ("arccos", "sum", "hypot"),
    ),
    record(
        "absolute-zero", "0 K", "T as K",
        "A temperature counts in kelvin in products and powers, from absolute zero: −273.15 °C.",
        (("0 K as °C", "=", "-273.15 °C"), ("20 °C as K", "=", "293.15 K")),
        "absolute zero temperature kelvin celsius thermodynamic",
        ("units-of-temperature",),
        source="SI brochure, 2.3.1",
    ),
    record(
        "converting", "as", "60 km/h as m/s",
        "A value in another unit: as, or in or to at the end, and the unit.",
        (("90 km/h as m/s", "=", "25 m/s"), ("5 km in mi", "≈", "3.106855961 mi")),
        "convert conversion km/h to m/s change units into another unit",
        ("measures", "as"),
        source="ISO 80000-1",
    ),
    record(
        "not-here", "solve", "limits, symbolic algebra, loops",
        "Teapot computes values: it does not rearrange expressions, take limits or repeat lines. "
        "solve, integral, derivative and sum work an expression out over a name of their own.",
        (),
        "limit simplify expand factor expression symbolic antiderivative loop for while program",
        aliases=("limit", "loop", "simplify"),
    ),
)  # fmt: skip
