"""Files with data: what they hold is guessed, and read as a table."""
