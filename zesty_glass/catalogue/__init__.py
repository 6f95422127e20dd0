"""The catalog as files: JSON and CSV, in and out, with a preview by row."""
