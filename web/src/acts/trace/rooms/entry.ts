import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    rooms: true;
  }
}

export default {
  act: "rooms",
  step: "trace",
  order: 40,
  label: "Rooms",
  key: "R",
  when: "click to name; divide",
  on: "storey",
} satisfies ActEntry;
