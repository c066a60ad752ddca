import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    ink: true;
  }
}

export default {
  act: "ink",
  step: "trace",
  order: 10,
  label: "From the ink",
  key: "A",
  when: "click, or find all",
  on: "storey",
} satisfies ActEntry;
