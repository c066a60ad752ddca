"""Unions and differences of rings by GEOS, held against the shapes that were found: area of both, area of what only one of them covers."""
import json
import sys

from shapely.geometry import Polygon
from shapely.ops import unary_union


def held(expected, shapes):
    parts = [Polygon(s["outer"], s["holes"]) for s in shapes]
    return {
        "area": expected.area,
        "differs": expected.symmetric_difference(unary_union(parts)).area,
        "valid": all(p.is_valid for p in parts),
        "apart": abs(sum(p.area for p in parts) - unary_union(parts).area),
    }


answers = []
for case in json.load(sys.stdin)["cases"]:
    rings, without = (unary_union([Polygon(r) for r in case[k]]) for k in ("rings", "without"))
    answers.append({"union": held(rings, case["union"]), "difference": held(rings.difference(without), case["difference"])})
json.dump({"cases": answers}, sys.stdout)
