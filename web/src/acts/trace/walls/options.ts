import { create } from "zustand";

/** mm: 240 and 115 are sizes of DIN 4172 (from memory); the others common practice, no source. */
export const THICKNESSES = [300, 240, 200, 120, 115, 100];

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
}

export const useWallOptions = create<WallOptions>(() => ({
  shape: "chain",
  line: "right",
  thickness: 300,
  buildUp: null,
  snapTo: { tracing: true, ink: true, lines: true },
  roundTo: 0,
}));
