# Skew by OpenCV's line segments: directions modulo 90 degrees, weighted by length, refined about their mode.
import json, math, sys
import cv2
import numpy as np

grey = cv2.imread(sys.argv[1], cv2.IMREAD_GRAYSCALE)
lines = cv2.createLineSegmentDetector(cv2.LSD_REFINE_ADV).detect(grey)[0][:, 0]
lengths = np.hypot(lines[:, 2] - lines[:, 0], lines[:, 3] - lines[:, 1])
angles = np.degrees(np.arctan2(lines[:, 1] - lines[:, 3], lines[:, 2] - lines[:, 0])) % 90
keep = lengths > 20
lengths, angles = lengths[keep], angles[keep]
bins = np.bincount((angles * 4).astype(int) % 360, weights=lengths, minlength=360)
mode = np.argmax(np.convolve(np.r_[bins[-4:], bins, bins[:4]], np.ones(9), 'valid')) / 4 + 0.125
for width in (2.0, 0.5, 0.15):
    off = (angles - mode + 45) % 90 - 45
    near = np.abs(off) < width
    if near.any():
        mode += float(np.average(off[near], weights=lengths[near] ** 3))
print(json.dumps({"degrees": (mode + 45) % 90 - 45}))
