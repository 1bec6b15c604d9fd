"""The job, its plans and setups as files: the open format, quantities as typed, and results by name and unit."""
