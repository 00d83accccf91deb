"""The views.  Each reads the request, asks :mod:`teapot.console.services` or
:mod:`teapot.console.evaluating`, and renders a template.

``page``  the sheet page;  ``lines``  its lines;  ``quantities``  the list beside
them;  ``history``  what was typed before;  ``replies``  what they share
"""
