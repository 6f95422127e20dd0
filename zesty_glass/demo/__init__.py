"""A made-up firm, its catalog and its homes."""
