"""Correlation of two pictures in grey and the greatest difference of their mean colours: likeness.py PREVIEW FILE"""
import json
import sys

import cv2
import numpy as np

preview = cv2.imread(sys.argv[1], cv2.IMREAD_COLOR)
other = cv2.imread(sys.argv[2], cv2.IMREAD_UNCHANGED)
if other.dtype == np.uint16:
    other = (other / 257).astype(np.uint8)
if other.ndim == 3 and other.shape[2] == 4:
    alpha = other[:, :, 3:].astype(np.float32) / 255
    other = (other[:, :, :3] * alpha + 255 * (1 - alpha)).astype(np.uint8)
else:
    # Only this way the orientation tag is followed.
    other = cv2.imread(sys.argv[2], cv2.IMREAD_COLOR) if other.dtype == np.uint8 and not sys.argv[2].endswith("tif") else cv2.cvtColor(other, cv2.COLOR_GRAY2BGR)
other = cv2.resize(other, (preview.shape[1], preview.shape[0]), interpolation=cv2.INTER_AREA)
a, b = (cv2.cvtColor(p, cv2.COLOR_BGR2GRAY).astype(np.float32) for p in (preview, other))
print(json.dumps([float(np.corrcoef(a.ravel(), b.ravel())[0, 1]), float(np.abs(preview.mean((0, 1)) - other.mean((0, 1))).max())]))
