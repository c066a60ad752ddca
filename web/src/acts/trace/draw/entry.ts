import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    draw: true;
  }
}

export default {
  act: "draw",
  step: "trace",
  order: 75,
  label: "Lines",
  key: "Z",
  when: "shapes, dimensions, profiles",
} satisfies ActEntry;
