"""Every shoot in a folder fits the JSON Schema; a broken one does not. Usage: check_schema.py SCHEMA FOLDER"""
import copy
import json
import pathlib
import sys

import jsonschema

schema = json.loads(pathlib.Path(sys.argv[1]).read_text(encoding="utf-8"))
jsonschema.Draft7Validator.check_schema(schema)
validator = jsonschema.Draft7Validator(schema)
shoots = sorted(pathlib.Path(sys.argv[2]).glob("*.poquito"))
assert shoots, "no shoots to check"
for path in shoots:
    shoot = json.loads(path.read_text(encoding="utf-8"))
    for error in validator.iter_errors(shoot):
        sys.exit(f"{path}: {error.json_path}: {error.message}")
    for change in (lambda s: s.pop("kit"), lambda s: s["shots"][0]["exposure"].update(iso=-1),
                   lambda s: s["shots"][0]["rig"].update(ring=0.5, magnification=0.5),
                   lambda s: s["shots"][0]["capture"].update(mode="burst"),
                   lambda s: s["kit"]["lenses"][0].pop("focal_length_mm")):
        broken = copy.deepcopy(shoot)
        change(broken)
        assert not validator.is_valid(broken), "the schema lets a broken shoot pass"
print(f"{len(shoots)} shoots fit the schema")
