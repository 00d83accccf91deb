"""Forms: a value written as an answer."""
