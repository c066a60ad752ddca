import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    measure: true;
  }
}

export default {
  act: "measure",
  step: null,
  order: 10,
  label: "Measure",
  key: "M",
  when: "lengths, angles, areas; nothing is saved",
  measures: true,
} satisfies ActEntry;
