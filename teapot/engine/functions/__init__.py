"""The functions of the language: one record each, one module a subject."""
