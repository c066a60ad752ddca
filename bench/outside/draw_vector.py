#!/usr/bin/python3
"""Vector PDFs of plans with exact truth, by a maker of drawings that lies beside the project: draw_vector.py MAKER FIRST LAST FOLDER"""
import os
import sys

maker, first, last, folder = sys.argv[1], int(sys.argv[2]), int(sys.argv[3]), sys.argv[4]
sys.path.insert(0, maker)
import build  # noqa: E402
import make  # noqa: E402

os.makedirs(folder, exist_ok=True)
for seed in range(first, last + 1):
    _, spec = make.spec_of(seed, 'scan', 'any')
    # A program draws what it is told, with no hand.
    for wobble in ('wobble', 'overshoot', 'jitter', 'slant'):
        spec['pen'].pop(wobble, None)
    spec['draw'].pop('gap_prob', None)
    try:
        build.build_pdf_vector('v%05d-%s' % (seed, spec['draw']['wall']), spec, folder)
    except Exception as e:  # a layout that does not come out with this size is left out
        print('%d left out: %s' % (seed, str(e)[:80]))
