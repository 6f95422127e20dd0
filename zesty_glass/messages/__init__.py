"""What the product says, as a catalogue of messages with parameters: a language is a file."""
