import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    settle: true;
  }
}

export default {
  act: "settle",
  step: "trace",
  order: 60,
  label: "Settle",
  key: "S",
  when: "walls exactly square",
  on: "storey",
} satisfies ActEntry;
