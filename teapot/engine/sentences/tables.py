"""Of tables and files of data."""

from teapot.engine.errors import Problem

NO_ROW = Problem("no-row", "The table has {count:,} rows, counted from 1; there is no row {place}.")

NO_LIST = Problem(
    "no-list",
    "table needs lists to set side by side, such as a range and what is computed from it.",
)

COLUMN_OF_TWO_KINDS = Problem(
    "column-of-two-kinds",
    "The column {name} has {first} and {second}; all of a column must be alike.",
)

NO_COLUMN = Problem("no-column", "The table has no column {name}. It has {known}.")

NOT_A_FILE = Problem("not-a-file", "This file cannot be read: {why}.")

OTHER_COLUMNS = Problem(
    "other-columns",
    "Its rows cannot be added: the columns and their units have to be the same. The table has "
    "{ours}; the file has {theirs}.",
)

NOT_ONE_TEST = Problem(
    "not-one-test",
    "This needs one test that uses the columns as names, such as temp > 80.",
)

NO_SHELF = Problem("no-shelf", "There is no table {name} on your shelf.{known}")

WANTS_TABLE = Problem("wants-table", "This needs a table, such as table(x, x^2).")

NOT_A_TABLE = Problem("not-a-table", "Only a table has columns, and {what} is {kind}.")

NO_TEST = Problem(
    "no-test",
    "This needs a test that is true or false for each item, such as w > 3.",
)
LIST_OF_GROUP = Problem(
    "list-of-group",
    "{typed} gives a list for each group, and one value is needed, such as mean({typed}).",
)
