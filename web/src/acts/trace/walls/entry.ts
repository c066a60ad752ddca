import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    walls: true;
  }
}

export default {
  act: "walls",
  step: "trace",
  order: 20,
  label: "Walls",
  key: "W",
  when: "along a face or middle",
  on: "storey",
} satisfies ActEntry;
