"""The sheet page: lines are typed, read, answered and kept."""
