import { count, listed } from "../../ui/numbers";

/** What speaks against a plan, by how many. */
export interface Against {
  findings: number;
  /** check lengths further off than their ± */
  checksOff: number;
  /** figures that the tracing does not bear out, and nobody has decided about */
  figures: number;
  /** walls and columns further beside the ink than ± explains */
  beside: number;
  /** what a practitioner would look at twice */
  doubts: number;
  /** check lengths in all: without one nothing judges the fit */
  checks: number;
}

/** One verdict, of the worst that is known. */
export function verdictOf(of: Against): { title: string; words: string } {
  const parts = [
    of.findings > 0 && count(of.findings, "finding"),
    of.checksOff > 0 && `${count(of.checksOff, "check length")} further off than ± explains`,
    of.figures > 0 && `${count(of.figures, "figure")} undecided`,
    of.beside > 0 && `${count(of.beside, "wall")} beside the ink`,
    of.doubts > 0 && count(of.doubts, "doubt"),
  ].filter((part) => part !== false);
  const n = of.findings + of.checksOff + of.figures + of.beside + of.doubts;
  const judged =
    of.checks === 0
      ? "Nothing checks the fit from outside yet, so it cannot be judged."
      : "Each check length is held against the fit, which does not know it.";
  if (n > 0) return { title: `${count(n, "thing")} to look at`, words: `${listed(parts)}. ${judged}` };
  return { title: of.checks === 0 ? "Not judged yet" : "Nothing found wrong", words: judged };
}
