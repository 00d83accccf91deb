"""Lines, the quantities they define, and what each was computed from."""
