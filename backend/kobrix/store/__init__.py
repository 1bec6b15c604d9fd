"""What is kept: jobs, and every change made to them with its inverse. Plain SQL over sqlite3; SQL stays in this room."""
