"""The Django project: settings, addresses, and the server's entry point."""
