"""Of matrices."""

from teapot.engine.errors import Problem

NO_MATRIX = Problem("no-matrix", "This needs a matrix: rows of one length, such as [1, 2; 3, 4].")

NOT_SQUARE = Problem(
    "not-square", "This needs as many rows as columns, and the matrix has {rows} × {columns}."
)

TOO_LARGE_MATRIX = Problem("too-large-matrix", "A matrix has at most {most} rows and columns here.")

SHAPES = Problem("shapes", "A {first} matrix and a {second} one do not fit together.")

SINGULAR_MATRIX = Problem(
    "singular-matrix", "The determinant is 0: there is no inverse, and no single solution."
)

ITEM_BY_ITEM = Problem(
    "item-by-item", "* multiplies matrices item by item. The product of matrices is dot."
)

VECTORS_ITEM_BY_ITEM = Problem(
    "vectors-item-by-item", "{sign} works item by item on lists. The {name} has a call of its own."
)

DIVIDED_ITEM_BY_ITEM = Problem(
    "divided-item-by-item",
    "/ divides matrices item by item. The product with an inverse is dot(A, inverse(B)).",
)

RAISED_ITEM_BY_ITEM = Problem(
    "raised-item-by-item",
    "^ raises each item of a matrix. The product with itself is dot(A, A), the inverse inverse(A).",
)
