"""The HTTP interface: thin handlers, one router a thing."""
