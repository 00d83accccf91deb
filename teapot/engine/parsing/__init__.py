"""Tokens to a syntax tree."""
