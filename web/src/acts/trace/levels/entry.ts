import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    levels: true;
  }
}

export default {
  act: "levels",
  step: "trace",
  order: 90,
  label: "Levels",
  key: "L",
  when: "heights: floor, sill, head, eaves, ridge",
  on: "side",
} satisfies ActEntry;
