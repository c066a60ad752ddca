import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    finishes: true;
  }
}

export default {
  act: "finishes",
  step: "trace",
  order: 115,
  label: "Finishes",
  key: "E",
  when: "tiles, boards, colours of true size",
  on: "storey",
} satisfies ActEntry;
