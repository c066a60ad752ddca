"""How much of an outline is left when it is shrunk with mitred corners, by GEOS through Shapely, in many small steps: one large step keeps
spikes of edges that are gone."""
import json
import sys

from shapely.geometry import Polygon

question = json.load(sys.stdin)
areas = []
for rings, distances in question['outlines']:
    shape = Polygon(rings[0], rings[1:])
    done, own = 0.0, []
    for to in distances:
        step = (to - done) / question['steps']
        for _ in range(question['steps']):
            shape = shape.buffer(-step, join_style=2, mitre_limit=1e6)
        done = to
        own.append(shape.area)
    areas.append(own)
json.dump({'areas': areas}, sys.stdout)
