import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    openings: true;
  }
}

export default {
  act: "openings",
  step: "trace",
  order: 30,
  label: "Doors, windows",
  key: "D",
  when: "click a gap or its edges",
  on: "storey",
} satisfies ActEntry;
