import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    street: true;
  }
}

export default {
  act: "street",
  step: "trace",
  order: 78,
  label: "Row of sides",
  key: "X",
  when: "street elevation",
  on: "side",
} satisfies ActEntry;
