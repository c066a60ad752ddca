import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    notes: true;
  }
}

export default {
  act: "notes",
  step: "trace",
  order: 70,
  label: "Notes",
  key: "N",
  when: "words, assumptions",
} satisfies ActEntry;
