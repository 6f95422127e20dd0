"""What a person does: one module an activity. Each function is one transaction's worth of work."""
