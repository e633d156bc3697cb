"""Change the core a little, many times, and see whether its tests notice.

Run by `make mutants`. Cosmic Ray makes the mutants; a sample with a fixed seed is tried within a
limit of time, each against the tests of its own place. Survivors are printed with their change: a
reason for each that is equivalent or is let live belongs in docs/mutants.md.
"""

from __future__ import annotations

import argparse
import json
import random
import shutil
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
SEED = 20260
TESTS = {
    "lines": [
        "test_towed_reference", "test_water_and_drag", "test_towed_closed_forms", "test_more_rigs",
        "test_trade_facts", "test_rig_properties", "test_turn", "test_calibration",
    ],
    "boat": ["test_boat", "test_wind", "test_ageing", "test_ahead", "test_way_back"],
    "tow": ["test_boat", "test_plan", "test_manoeuvre", "test_turn"],
    "gear": [
        "test_gear_numbers", "test_limits", "test_rules", "test_beside", "test_usual",
        "test_more_rigs", "test_beat", "test_voltage", "test_record", "test_bridge", "test_spread",
    ],
    "rig_rules": ["test_rules", "test_limits", "test_beside", "test_usual", "test_spread"],
    "record": [
        "test_limits", "test_record", "test_beside", "test_ahead", "test_advice", "test_bridge",
        "test_ageing", "test_wind", "test_manoeuvre", "test_beat", "test_verdict", "test_history",
        "test_bites", "test_day_plan", "test_earlier", "test_back_through",
    ],
    "evidence": [
        "test_rates", "test_advice", "test_verdict", "test_day_model", "test_earlier",
        "test_funnel",
    ],
    "advice": [
        "test_advice", "test_verdict", "test_rules", "test_record", "test_day_model",
        "test_day_plan", "test_earlier", "test_funnel", "test_limits", "test_water_layers",
    ],
}
SHARE = {
    "lines": 0.36, "boat": 0.06, "tow": 0.08, "gear": 0.12, "rig_rules": 0.08, "record": 0.14,
    "evidence": 0.1, "advice": 0.06,
}
# Taking off a decorator breaks a class at its import, which tells nothing of the tests.
SKIPPED = ("core/RemoveDecorator", "core/ExceptionReplacer")


@dataclass(frozen=True)
class Mutant:
    """A mutant that was tried."""

    place: str
    module: str
    operator: str
    line: int
    outcome: str
    diff: str


def workplace(number: int, base: Path) -> Path:
    """Return a copy of what the tests of the core need."""
    place = base / f"copy-{number}"
    for name in ("core", "tests", "demo", "docs", "scripts", "server"):
        shutil.copytree(ROOT / name, place / name, ignore=shutil.ignore_patterns("__pycache__"))
    shutil.copytree(ROOT / "web/build", place / "web/build")
    shutil.copy(ROOT / "pyproject.toml", place / "pyproject.toml")
    return place


def sampled(tool: Path, place: Path, package: str, count: int) -> Path:
    """Return a session of Cosmic Ray with a sample of a package's mutants."""
    files = [
        f"tests/core/{name}.py" for name in TESTS[package]
        if (place / f"tests/core/{name}.py").exists()
    ]
    command = " ".join([
        "env", "SEQUENCES=8", str(ROOT / ".venv/bin/python"), "-m", "pytest", "-o", "addopts=",
        "-p", "no:cacheprovider", "-x", "-q", "--timeout", "120", *files,
    ])
    if subprocess.run(command.split(), cwd=place, check=False, capture_output=True).returncode:
        raise SystemExit(f"{package}: its tests fail with nothing changed")
    config = place / f"{package}.toml"
    config.write_text(
        "[cosmic-ray]\n"
        f'module-path = "core/src/coldwake_core/{package}"\ntimeout = 240.0\n'
        f'excluded-modules = []\ntest-command = "{command}"\n'
        '[cosmic-ray.distributor]\nname = "local"\n'
    )
    session = place / f"{package}.sqlite"
    run = [str(tool), "init", str(config), str(session)]
    subprocess.run(run, cwd=place, check=True, capture_output=True)
    with sqlite3.connect(session) as db:
        jobs = sorted(
            db.execute(
                "SELECT job_id, module_path, operator_name, start_pos_row FROM mutation_specs"
            ),
            key=lambda row: (row[1], row[3], row[2], row[0]),
        )
        jobs = [job for job in jobs if job[2] not in SKIPPED and not _said(place, job[1], job[3])]
        # Cosmic Ray's keys are random: draw by place in the file, so that a seed means something.
        picked = {job[0] for job in random.Random(SEED).sample(jobs, min(count, len(jobs)))}
        for table in ("mutation_specs", "work_items"):
            for (job,) in list(db.execute(f"SELECT job_id FROM {table}")):
                if job not in picked:
                    db.execute(f"DELETE FROM {table} WHERE job_id = ?", (job,))
    return session


def _said(place: Path, module: str, line: int) -> bool:
    """Whether a line is only a signature, an import or an annotation."""
    text = (place / module).read_text("utf-8").splitlines()[line - 1].strip()
    return text.startswith(("from ", "import ", "def ", "@", "class ")) or " | None" in text


def tried(tool: Path, place: Path, package: str, session: Path) -> None:
    """Try every mutant of a session."""
    run = [str(tool), "exec", str(place / f"{package}.toml"), str(session)]
    subprocess.run(run, cwd=place, check=False, capture_output=True)


def outcomes(package: str, session: Path) -> list[Mutant]:
    """Return what became of a session's mutants."""
    with sqlite3.connect(session) as db:
        rows = db.execute(
            "SELECT m.module_path, m.operator_name, m.start_pos_row, r.test_outcome, r.diff "
            "FROM mutation_specs m JOIN work_results r ON r.job_id = m.job_id"
        ).fetchall()
    return [
        Mutant(package, Path(module).name, operator, line, str(outcome).rsplit(".", 1)[-1].lower(),
               diff or "")
        for module, operator, line, outcome, diff in rows
    ]  # fmt: skip


def main() -> None:
    """Try a sample and print the score."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=120, help="how many mutants")
    parser.add_argument("--only", default="", help="one place of the core")
    parser.add_argument("--minutes", type=float, default=40.0, help="give up after this long")
    asked = parser.parse_args()
    tool = ROOT / ".build/mutants/bin/cosmic-ray"
    packages = [asked.only] if asked.only else sorted(TESTS, key=lambda name: -SHARE[name])
    with tempfile.TemporaryDirectory() as folder:
        sessions = []
        threads = []
        for number, package in enumerate(packages):
            place = workplace(number, Path(folder))
            count = asked.count if asked.only else round(asked.count * SHARE[package])
            session = sampled(tool, place, package, count)
            sessions.append((package, session))
            threads.append(threading.Thread(
                target=tried, args=(tool, place, package, session), daemon=True
            ))
        end = time.monotonic() + 60.0 * asked.minutes
        # Two at a time, for two cores.
        waiting, running = list(threads), list[threading.Thread]()
        while (waiting or running) and time.monotonic() < end:
            running = [thread for thread in running if thread.is_alive()]
            while waiting and len(running) < 2:
                running.append(waiting.pop(0))
                running[-1].start()
            time.sleep(1.0)
        mutants = [one for package, session in sessions for one in outcomes(package, session)]
    killed = sum(one.outcome != "survived" for one in mutants)
    for one in mutants:
        if one.outcome == "survived":
            sys.stdout.write(f"\n{one.place}/{one.module}:{one.line} {one.operator}\n")
            changed = [
                row for row in one.diff.splitlines()
                if row[:1] in "+-" and not row.startswith(("+++", "---"))
            ]
            sys.stdout.write("\n".join(changed) + "\n")
    by_place = {
        name: [one.outcome != "survived" for one in mutants if one.place == name]
        for name in packages
    }
    sys.stdout.write(json.dumps(
        {name: f"{sum(found)} of {len(found)}" for name, found in by_place.items()}
    ) + "\n")
    sys.stdout.write(f"{killed} of {len(mutants)} killed, seed {SEED}\n")


if __name__ == "__main__":
    main()
