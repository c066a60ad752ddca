import type { ActEntry } from "../../../board/act";

declare module "../../../board/desk" {
  interface ActNames {
    unstretch: true;
  }
}

export default {
  act: "unstretch",
  step: "true-up",
  order: 30,
  label: "Unstretch",
  key: "U",
  when: "a copy wider or narrower than true",
} satisfies ActEntry;
