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
  when: "anything; nothing is saved",
} satisfies ActEntry;
