import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    calibrate: true;
  }
}

export default {
  act: "calibrate",
  step: "true-up",
  order: 10,
  label: "Calibrate",
  key: "C",
  when: "pick both ends of a length you know",
} satisfies ActEntry;
