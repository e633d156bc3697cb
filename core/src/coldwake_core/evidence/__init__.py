"""Weighing of evidence: rates, controls, verdicts."""
