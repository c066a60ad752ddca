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

/** A value with its sign: a tenth below ten. */
export function signed(value: number): string {
  const said = grouped(value, Math.abs(value) < 10 ? 1 : 0);
  return value > 0 && /[1-9]/.test(said) ? `+${said}` : said;
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
  return `${n} ${n === 1 ? word : word.endsWith("ary") ? word.replace(/y$/, "ies") : `${word}s`}`;
}

/** Things one after the other, in words. */
export function listed(words: readonly string[]): string {
  return words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;
}
