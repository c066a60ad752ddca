import { create } from "zustand";
import { isImperial } from "../../../ui/measures";

/** mm: 240 and 115 are sizes of DIN 4172 (from memory); the others common practice, no source. */
const METRIC = [300, 240, 200, 120, 115, 100];
/** inches: common practice, no source */
const IMPERIAL = [12, 10, 8, 6, 4.5, 4].map((inches) => inches * 25.4);

/** Usual thicknesses where sizes are shown as they are in this project, mm. */
export const thicknesses = () => (isImperial() ? IMPERIAL : METRIC);

/** What clicked lengths may be rounded to, mm; 0 leaves them. */
export const steps = () => (isImperial() ? [0, 12.7, 25.4, 76.2, 152.4, 304.8] : [0, 10, 25, 50, 100, 125]);

/** How the next walls are traced. */
export interface WallOptions {
  shape: "chain" | "rectangle" | "arc";
  line: "centre" | "left" | "right";
  /** mm, where no build-up says it */
  thickness: number;
  buildUp: string | null;
  snapTo: { tracing: boolean; ink: boolean; lines: boolean };
  /** lengths clicked are rounded to this, mm; 0 leaves them */
  roundTo: number;
  /** what the next click says instead of a corner: where the regular grid begins, or which way a wing runs */
  asks: "origin" | "wing" | null;
}

export const useWallOptions = create<WallOptions>(() => ({
  shape: "chain",
  line: "right",
  thickness: 300,
  buildUp: null,
  snapTo: { tracing: true, ink: true, lines: true },
  roundTo: 0,
  asks: null,
}));
