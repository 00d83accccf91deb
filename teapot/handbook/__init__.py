"""The handbook as pages, and as a drawer beside a sheet."""
