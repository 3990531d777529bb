"""What reaches outside: files of the user, jobs, later sound and sharing. Each behind a small interface."""
