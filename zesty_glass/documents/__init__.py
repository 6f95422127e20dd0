"""What leaves and enters as a file: visit file (JSON), CSV, PDF, calendar."""
