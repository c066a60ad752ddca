"""Connected pieces of black on white by OpenCV, eight neighbours: left, top, width, height, pixels."""
import base64
import json
import sys

import cv2
import numpy as np

question = json.load(sys.stdin)
picture = np.frombuffer(base64.b64decode(question["bytes"]), np.uint8).reshape(question["height"], question["width"])
count, _, stats, _ = cv2.connectedComponentsWithStats((picture < 128).astype(np.uint8), connectivity=8)
print(json.dumps({"blobs": stats[1:].tolist()}))
