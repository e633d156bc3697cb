"""Weighing of evidence: rates and verdicts."""
