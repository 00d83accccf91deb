"""Files of data, kept as tables in versions of which none ever changes."""
