"""What whoever hosts Teapot does with it: backups, health, tidying, the demo."""
