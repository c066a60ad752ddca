import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    objects: true;
  }
}

export default {
  act: "objects",
  step: "trace",
  order: 110,
  label: "Objects",
  key: "K",
  when: "beds, baths, people",
  on: "storey",
} satisfies ActEntry;
