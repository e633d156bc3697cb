"""Write the rules of the rig from the code into docs/rules.md, between its two marks."""

from __future__ import annotations

from pathlib import Path

from coldwake_core.gear.leader import SCHOOL_NAMES
from coldwake_core.rig_rules.engine import RULES

PAGE = Path(__file__).resolve().parent.parent / "docs" / "rules.md"
BEGIN, END = "<!-- rules of the rig: begin -->", "<!-- rules of the rig: end -->"


def table() -> str:
    """Return the rules and the leader schools as Markdown."""
    lines = [
        "## Rules of the rig (`rig_rules/engine.py`, written by `scripts/write_rules.py`)",
        "",
        "| id | severity | school | speaks when | says | remedy |",
        "|---|---|---|---|---|---|",
    ]
    lines += [
        f"| `{rule.id}` | {rule.severity} | {rule.school} | {rule.condition} | {rule.message} "
        f"| {rule.remedy} |"
        for rule in RULES
    ]
    lines += ["", "Leader schools (`gear/leader.py`): " + "; ".join(SCHOOL_NAMES.values()) + "."]
    return "\n".join(lines)


def main() -> None:
    """Write them."""
    text = PAGE.read_text("utf-8")
    if BEGIN not in text:
        text = text.rstrip() + f"\n\n{BEGIN}\n{END}\n"
    head, rest = text.split(BEGIN)
    PAGE.write_text(f"{head}{BEGIN}\n{table()}\n{END}{rest.split(END)[1]}", "utf-8")


if __name__ == "__main__":
    main()
