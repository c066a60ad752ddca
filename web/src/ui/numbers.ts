const THIN = "\u2009";

/** Digits in groups of three by thin spaces. */
export function grouped(value: number, decimals = 0): string {
  const [whole = "0", part] = Math.abs(value).toFixed(decimals).split(".");
  const sign = value < 0 && Number(value.toFixed(decimals)) !== 0 ? "−" : "";
  return sign + whole.replace(/\B(?=(\d{3})+$)/g, THIN) + (part ? `.${part}` : "");
}

/** To a tenth, and no digit that says nothing: 300.1, 120. */
export function tenths(value: number): string {
  return String(Number(value.toFixed(1)));
}

/** A difference, always with its sign and with enough digits to be seen. */
export function difference(mm: number): string {
  const decimals = Math.abs(mm) < 10 ? 1 : 0;
  return Number(mm.toFixed(decimals)) > 0 ? `+${grouped(mm, decimals)}` : grouped(mm, decimals);
}

/** ± in mm: one decimal below ten. */
export function plusMinus(mm: number): string {
  return `±${grouped(mm, mm < 10 ? 1 : 0)}`;
}

/** ± in mm beside the one that is asked for: with a decimal where it would look like enough and is not. */
export function plusMinusBeside(mm: number, asked: number): string {
  return mm > asked && Math.round(mm) <= asked ? `±${(Math.ceil(mm * 10) / 10).toFixed(1)}` : plusMinus(mm);
}

export function area(m2: number): string {
  return `${grouped(m2, 2)} m²`;
}

/** How sure something found is, in words: never wholly. */
export function sureness(confidence: number): string {
  return `${Math.max(1, Math.min(99, Math.round(confidence * 100)))} %`;
}

/** What a turn is beside the quarters that make a page upright, degrees counter-clockwise in (−180, 180]. */
export function besideQuarters(degrees: number, quarters: number): number {
  const rest = (degrees - 90 * quarters) % 360;
  return rest > 180 ? rest - 360 : rest <= -180 ? rest + 360 : rest;
}

/** How many of something there are, in words. */
export function count(n: number, word: string): string {
  return `${n} ${word}${n === 1 ? "" : "s"}`;
}

/** mm with its sign, ±0 at zero. */
export function height(mm: number): string {
  return Math.abs(mm) < 0.5 ? "±0" : `${mm < 0 ? "−" : "+"}${grouped(Math.abs(mm))}`;
}
