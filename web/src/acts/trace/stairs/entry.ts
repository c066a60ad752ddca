import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    stairs: true;
  }
}

export default {
  act: "stairs",
  step: "trace",
  order: 105,
  label: "Stairs",
  key: "J",
  when: "up from this storey",
  on: "storey",
} satisfies ActEntry;
