# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks shipped and freshly made builds against the published JSON Schema with a general validator."""
import json
import pathlib
import subprocess
import sys
import tempfile

import jsonschema

root, cli = pathlib.Path(sys.argv[1]), sys.argv[2]
published = (root / "docs/format/mild-path-build.schema.json").read_text()
made = subprocess.run([cli, "schema"], check=True, capture_output=True, text=True).stdout
assert published == made, "docs/format/mild-path-build.schema.json is not what mildpath-cli schema writes"
schema = json.loads(published)
validator = jsonschema.validators.validator_for(schema)
validator.check_schema(schema)
check = validator(schema)

files = sorted(root.glob("templates/*.json")) + sorted(root.glob("demo/*.mildpath"))
assert files, "no builds found"
with tempfile.TemporaryDirectory() as folder:
    made = pathlib.Path(folder) / "made.mildpath"
    subprocess.run([cli, "new", "--template", "inline-four-alloy", "-o", made], check=True)
    for path in files + [made]:
        faults = [f"{'/'.join(map(str, e.path))}: {e.message}" for e in check.iter_errors(json.loads(path.read_text()))]
        assert not faults, f"{path}: {faults[:3]}"
        subprocess.run([cli, "validate", path], check=True, stdout=subprocess.DEVNULL)

# What the schema must catch, so that it cannot be empty.
good = json.loads(files[0].read_text())
for change in ({"version": "2"}, {"format": "other"}, {"oil": "15W-40"}, {"readings": {}},
               {"circuit": {"elements": [{"id": "a", "type": "wing", "from": "x", "to": "y"}], "gauge_tap": "x"}},
               {"gauge_readings": [{"id": "g", "tap": "x", "rpm": 0, "oil_temp_c": 90, "pressure_kpa": 100}]},
               {"flows": [{"id": "f", "stop": "main_1", "saw": "maybe", "means": "drill"}]}):
    assert list(check.iter_errors({**good, **change})), f"the schema accepts {change}"
print(f"{len(files) + 1} builds agree with the schema")
