"""A made-up firm, its catalogue and its homes."""
