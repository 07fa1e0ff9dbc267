"""A year of minutes in six columns: read, judged and drawn, against reading it alone; and the memory a file of 64 MB takes.

Run: python -m benchmarks.trends [--rows 525600]. Prints seconds, the ratio of the whole to plainly parsing the file, and megabytes.
"""

import argparse
import csv
import io
import subprocess
import sys
import tempfile
import time
from datetime import datetime, timedelta
from pathlib import Path

import numpy as np

from kettle.benches.trends.read import read
from kettle.benches.trends.tiles import drawn, tile
from kettle.knowledge.equipment import UnitSpec, resolve
from kettle.trends import layout, table

ROLES = ("box_f", "supply_f", "product_f", "coil_f", "amps", "ambient_f")
UNITS = {"amps": "A"}
YEAR = 525_600
# About 64 MB.
LARGEST_ROWS = 1_390_000


def year(rows):
    """A year of minutes as a logger writes it: cycles, four defrosts a day, doors."""
    minute = np.arange(rows)
    chance = np.random.default_rng(1)
    into = minute % 360
    defrost = into < 22
    lift = np.where(defrost, 9.0 * into / 22.0, np.maximum(0.0, 9.0 - (into - 22) / 4.0))
    cycle = minute % 34
    on = (cycle < 15) & ~defrost
    box = -5.0 + np.where(cycle < 15, 1.5 - cycle / 5.0, -1.5 + (cycle - 15) / 6.3) + lift + chance.normal(0.0, 0.1, rows)
    coil = np.where(defrost, -5.0 + 2.8 * into, box - np.where(on, 10.0, 1.0))
    columns = [
        box,
        box - 3.0,
        np.full(rows, -4.0) + chance.normal(0.0, 0.1, rows),
        coil,
        np.where(on, 9.5, 0.0),
        75.0 + 10.0 * np.sin(minute / 229.0),
    ]
    begins, text = datetime(2025, 1, 1), ["Time,Box F,Supply F,Product F,Coil F,Amps,Ambient F"]
    for n in range(rows):
        at = begins + timedelta(minutes=n)
        text.append(f"{at:%m/%d/%Y %H:%M}," + ",".join(f"{column[n]:.1f}" for column in columns))
    return ("\n".join(text) + "\n").encode()


def once(file, size):
    """Seconds to read, to judge and to draw."""
    head = file.read(layout.HEAD_BYTES)
    file.seek(size - 4000)
    laid = layout.look(head, file.read())
    file.seek(0)
    match = {n: (role, UNITS.get(role, "°F")) for n, role in enumerate(ROLES, start=1)}
    marks = [time.perf_counter()]
    trend = table.read(file, laid, match, "America/Denver", "standard")
    marks.append(time.perf_counter())
    told = read(trend, resolve(UnitSpec("walk_in_freezer", "R-404A")), 5.0)
    marks.append(time.perf_counter())
    tile(trend, trend.at_s[0], trend.at_s[-1], 1200)
    drawn(trend, ("box_f", "coil_f"), trend.at_s[0], trend.at_s[-1])
    marks.append(time.perf_counter())
    return [b - a for a, b in zip(marks, marks[1:], strict=False)], told


def plain(raw):
    """Seconds to split the same file and turn its figures into numbers, nothing else."""
    begins = time.perf_counter()
    for row in csv.reader(io.StringIO(raw.decode())):
        for cell in row[1:]:
            try:
                float(cell)
            except ValueError:
                break
    return time.perf_counter() - begins


def most_mb():
    """The most memory this process has held, MB (Linux)."""
    told = dict(line.split(":", 1) for line in Path("/proc/self/status").read_text().splitlines())
    return int(told["VmHWM"].split()[0]) / 1024


def main():
    """Print what it takes."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--rows", type=int, default=YEAR)
    parser.add_argument("--memory", help="a file to read, for the memory it takes")
    asked = parser.parse_args()
    if asked.memory:
        size = Path(asked.memory).stat().st_size
        with Path(asked.memory).open("rb") as file:
            once(file, size)
        print(f"{size / 1e6:.0f} MB file: {most_mb():.0f} MB of memory at most")
        return
    raw = year(asked.rows)
    parts, told = min((once(io.BytesIO(raw), len(raw)) for _ in range(3)), key=lambda one: sum(one[0]))
    bare = min(plain(raw) for _ in range(3))
    print(f"{asked.rows:,} rows, {len(raw) / 1e6:.0f} MB: read {parts[0]:.2f} s, judged {parts[1]:.2f} s, drawn {parts[2]:.2f} s, "
          f"in all {sum(parts):.2f} s, {sum(parts) / bare:.2f} times plainly parsing it")  # fmt: skip
    for one in told.findings:
        print(" ", one.says)
    with tempfile.NamedTemporaryFile(suffix=".csv") as file:
        file.write(year(LARGEST_ROWS))
        file.flush()
        subprocess.run([sys.executable, "-m", "benchmarks.trends", "--memory", file.name], check=True)


if __name__ == "__main__":
    main()
