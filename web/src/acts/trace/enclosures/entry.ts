import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    enclosures: true;
  }
}

export default {
  act: "enclosures",
  step: "trace",
  order: 117,
  label: "Enclosures",
  key: "X",
  when: "classes of fire resistance",
  on: "storey",
} satisfies ActEntry;
