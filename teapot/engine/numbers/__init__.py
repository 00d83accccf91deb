"""The values of the language and the arithmetic between them."""
