"""The units of measurement: what they are, what they are called, and how they go together."""
