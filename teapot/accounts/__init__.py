"""Who is at the keyboard."""
