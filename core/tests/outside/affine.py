"""OpenCV's least-squares affine map of each set of point pairs: [[a, b, c, d, e, f], …]."""
import json
import sys

import cv2
import numpy as np

answers = []
for pairs in json.load(sys.stdin)["sets"]:
    src = np.array([p[0] for p in pairs], float)
    dst = np.array([p[1] for p in pairs], float)
    # All points as inliers, so that only the refinement (least squares) speaks.
    m, _ = cv2.estimateAffine2D(src, dst, method=cv2.RANSAC, ransacReprojThreshold=1e9, refineIters=100)
    answers.append(m.ravel().tolist())
print(json.dumps({"maps": answers}))
