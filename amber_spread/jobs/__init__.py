"""Long jobs: a queue in the database, the workers that run its jobs, and the limits on each job."""
