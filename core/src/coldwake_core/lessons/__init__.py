"""Lessons: small tasks on the models of the job, with checks that luck does not pass."""
