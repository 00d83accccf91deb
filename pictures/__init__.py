"""Pictures, drawn as SVG text.  They know nothing of Django; colours and fonts are
the page's, by class names."""
