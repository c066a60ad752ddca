"""OpenCV's least-squares similarity of each set of point pairs: [[scale, degrees, tx, ty], …]."""
import json, math, sys
import cv2
import numpy as np

answers = []
for pairs in json.load(sys.stdin)["sets"]:
    src = np.array([p[0] for p in pairs], float)
    dst = np.array([p[1] for p in pairs], float)
    # All points as inliers, so that only the refinement (least squares) speaks.
    m, _ = cv2.estimateAffinePartial2D(src, dst, method=cv2.RANSAC, ransacReprojThreshold=1e9, refineIters=100)
    answers.append([math.hypot(m[0, 0], m[1, 0]), math.degrees(math.atan2(m[1, 0], m[0, 0])), m[0, 2], m[1, 2]])
json.dump({"fits": answers}, sys.stdout)
