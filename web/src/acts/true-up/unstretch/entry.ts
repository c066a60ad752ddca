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
  label: "Copy, camera",
  key: "U",
  when: "what the copier or the camera did to it",
} satisfies ActEntry;
