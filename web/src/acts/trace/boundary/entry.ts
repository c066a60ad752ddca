import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    boundary: true;
  }
}

export default {
  act: "boundary",
  step: "trace",
  order: 80,
  label: "Boundary",
  key: "B",
  when: "a site, leg by leg",
  on: "storey",
} satisfies ActEntry;
