import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    place: true;
  }
}

export default {
  act: "place",
  step: "true-up",
  order: 40,
  label: "Place",
  key: "P",
  when: "a corner onto the origin, an axis onto the grid",
} satisfies ActEntry;
