import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    figures: true;
  }
}

export default {
  act: "figures",
  step: "trace",
  order: 50,
  label: "Figures",
  key: "I",
  when: "face to face, as figured",
  on: "storey",
} satisfies ActEntry;
