"""What goes out and comes in again: sheets as text, Markdown, HTML, LaTeX, CSV and JSON."""
