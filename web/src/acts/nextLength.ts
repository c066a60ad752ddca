import { create } from "zustand";
import type { Values } from "../store/rows";

/** How the next known length, room or count is stated. */
export interface NextLength {
  by: "length" | "room" | "count";
  along: "straight" | "x" | "y" | "across";
  /** a check only, that the fit does not know */
  heldOut: boolean;
  standing: Values["knownLength"]["standing"];
  /** what a figure runs between, and what is picked */
  endsAt: Values["knownLength"]["ends"];
  pickedAt: Values["knownLength"]["picked"];
  /** thickness of the wall at its ends as typed, where the two differ */
  wallText: string;
  /** how far what is picked stands before the wall plane, and from how far away that was photographed, as typed */
  standOff: { by: string; from: string };
  wholePage: boolean;
  /** what one course and one unit add, as typed where they are counted and the project does not know them yet */
  module: { course: string; unitLength: string };
  /** sides of the size ghost as typed, and in mm once they are read */
  ghost: { width: string; depth: string; mm: readonly [number, number] | null };
}

export const useNextLength = create<NextLength>(() => ({
  by: "length",
  along: "straight",
  heldOut: false,
  standing: "figured",
  endsAt: "outer face",
  pickedAt: "outer face",
  wallText: "",
  standOff: { by: "", from: "" },
  wholePage: false,
  module: { course: "", unitLength: "" },
  ghost: { width: "", depth: "", mm: null },
}));
