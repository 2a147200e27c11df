# SPDX-License-Identifier: GPL-3.0-or-later
"""Checks shipped and freshly made builds against the published JSON Schema with a general validator."""
import json
import pathlib
import subprocess
import sys
import tempfile

import jsonschema

root, cli = pathlib.Path(sys.argv[1]), sys.argv[2]
schema = json.loads((root / "docs/format/mild-path-build.schema.json").read_text())
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
for change in ({"version": "2"}, {"format": "other"}, {"oil": "15W-40"}, {"readings": {}}):
    assert list(check.iter_errors({**good, **change})), f"the schema accepts {change}"
print(f"{len(files) + 1} builds agree with the schema")
