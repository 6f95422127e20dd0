"""What is kept: models, queries and migrations. The only place that knows the database."""
