"""What the product says, as a catalog of messages with parameters: a language is a file."""
