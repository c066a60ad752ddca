import { create } from "zustand";

/** Whether the remaining errors show on the drawing instead of what was stated. */
export const useTruthPlot = create<{ shown: boolean }>(() => ({ shown: false }));
