import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    outline: true;
  }
}

export default {
  act: "outline",
  step: "trace",
  order: 100,
  label: "Outlines",
  key: "O",
  when: "faces, floors, voids",
} satisfies ActEntry;
