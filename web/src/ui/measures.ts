import type { Schemas } from "../api/client";
import { roundStep } from "../geometry/plane";
import { grouped } from "./numbers";

/** In what a project's sizes are shown: one way for the whole page, which is built anew when it is another. */
type DisplayUnit = Schemas["DisplayUnit"];

const INCH_MM = 25.4;
const FOOT_MM = 304.8;
const SQUARE_FOOT_M2 = 0.09290304;

/** In what its areas are. */
type AreaUnit = Schemas["ProjectValues"]["areas"];

let unit: DisplayUnit = "mm";
let areas: NonNullable<AreaUnit> = "m2";

export function showIn(chosen: DisplayUnit, of: AreaUnit = isImperial(chosen) ? "ft2" : "m2"): void {
  unit = chosen;
  areas = of;
}

export function shownIn(): DisplayUnit {
  return unit;
}

export function isImperial(of: DisplayUnit = unit): boolean {
  return of.startsWith("ft") || of === "in";
}

const parts = (): number => (unit.startsWith("ft-in/") ? Number(unit.slice(6)) : 0);

/** A length as it stands on a plan: `4 375`, `4.375`, `14'-4 1/4"`, `14.35'`. */
export function written(mm: number): string {
  if (parts() > 0) return feetAndInches(mm, parts());
  switch (unit) {
    case "cm":
      return grouped(mm / 10, 1);
    case "m":
      return grouped(mm / 1000, 3);
    case "ft":
      return `${grouped(mm / FOOT_MM, 2)}'`;
    case "in":
      return `${grouped(mm / INCH_MM, 2)}"`;
    default:
      return grouped(mm);
  }
}

/** The same in a sentence: with its unit, where it does not carry it by itself. */
export function inWords(mm: number): string {
  return isImperial() ? written(mm) : `${written(mm)} ${unit}`;
}

/** A small length: with more digits than one that stands on a plan. */
export function fine(mm: number, decimals = Math.abs(mm) < 10 ? 1 : 0): string {
  if (isImperial()) {
    const inches = Math.abs(mm) / INCH_MM;
    if (inches < 24) return `${grouped(mm / INCH_MM, inches < 10 ? 2 : 1)}"`;
    const feet = Math.floor(inches / 12);
    return `${mm < 0 ? "−" : ""}${feet}'-${(inches - 12 * feet).toFixed(2)}"`;
  }
  if (unit === "cm") return grouped(mm / 10, decimals + 1);
  return unit === "m" ? grouped(mm / 1000, decimals + 3) : grouped(mm, decimals);
}

/** A small length in a sentence. */
export function fineInWords(mm: number, decimals?: number): string {
  return isImperial() ? fine(mm, decimals) : `${fine(mm, decimals)} ${unit}`;
}

/** A difference, always with its sign and with enough digits to be seen. */
export function difference(mm: number): string {
  const said = fine(mm);
  return /[1-9]/.test(said) && mm > 0 ? `+${said}` : said;
}

/** ±, to a tenth below ten millimetres. */
export function plusMinus(mm: number): string {
  return `±${fine(mm)}`;
}

/** ± beside the one that is asked for: with a digit more where it would look like enough and is not. */
export function plusMinusBeside(mm: number, asked: number): string {
  return mm > asked && fine(mm) === fine(asked) ? `±${fine(Math.ceil(mm * 10) / 10, 1)}` : plusMinus(mm);
}

/** What ± is told over: ten metres. */
export function overSpan(): string {
  return isImperial() ? "33 ft" : "10 m";
}

/** A length on a site, in a sentence: metres and feet, whatever the house is drawn in. */
export function onSite(mm: number): string {
  return isImperial() ? `${grouped(mm / FOOT_MM, 2)}'` : `${grouped(mm / 1000, 2)} m`;
}

/** The same as it is typed and read back, to the millimetre. */
export function typedOnSite(mm: number): string {
  return isImperial() ? `${(mm / FOOT_MM).toFixed(3)} ft` : `${(mm / 1000).toFixed(3)} m`;
}

/** The unit where it is said once for several figures: nothing where they carry it themselves. */
export function unitWord(): string {
  return isImperial() ? "" : ` ${unit}`;
}

export function area(m2: number): string {
  return areas === "ft2" ? `${grouped(m2 / SQUARE_FOOT_M2, 1)} ft²` : `${grouped(m2, 2)} m²`;
}

/** mm with its sign, ±0 at zero. */
export function height(mm: number): string {
  return Math.abs(mm) < 0.5 ? "±0" : `${mm < 0 ? "−" : "+"}${written(Math.abs(mm))}`;
}

/** What stands in a field, to be typed over: with its unit, as the core reads it back. */
export function typedAs(mm: number, decimals = 0): string {
  if (parts() > 0) return feetAndInches(mm, parts());
  switch (unit) {
    case "cm":
      return `${(mm / 10).toFixed(1 + decimals)} cm`;
    case "m":
      return `${(mm / 1000).toFixed(3 + decimals)} m`;
    case "ft":
      return `${(mm / FOOT_MM).toFixed(3)} ft`;
    case "in":
      return `${(mm / INCH_MM).toFixed(2)} in`;
    default:
      return `${Number(mm.toFixed(decimals))} mm`;
  }
}

/** Lengths that were computed stand in messages in millimetres, with a narrow no-break space before the unit: here as the project has them. */
export function said(message: string): string {
  const spanned = isImperial() ? message.replaceAll(" over 10 m", ` over ${overSpan()}`) : message;
  return spanned.replace(/(-?\d+(?:\.(\d+))?)\u202fmm/g, (_, mm: string, tenths?: string) => {
    const value = Number(mm);
    if (!isImperial() && unit === "mm") return `${grouped(value, tenths?.length ?? 0)} mm`;
    return Math.abs(value) < 100 ? fineInWords(value, tenths?.length ?? 0) : inWords(value);
  });
}

/** Feet, inches and a part of an inch in its lowest terms: `11'-7 1/2"`; below a foot inches alone. */
function feetAndInches(mm: number, of: number): string {
  const all = Math.round((Math.abs(mm) / INCH_MM) * of);
  const sign = mm < 0 && all > 0 ? "−" : "";
  const inches = Math.floor(all / of);
  let [top, bottom] = [all % of, of];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const part = top > 0 ? `${top}/${bottom}` : "";
  const feet = Math.floor(inches / 12);
  const rest = inches % 12;
  if (feet === 0) return `${sign}${rest > 0 || part === "" ? rest : ""}${rest > 0 && part ? " " : ""}${part}"`;
  return `${sign}${feet}'-${rest}${part ? ` ${part}` : ""}"`;
}

const ROUND_FEET = [1 / 12, 0.25, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000];

/** A round step of the project's own unit that takes at least `least` screen pixels at `k` pixels per millimetre, mm. */
export function ruleStep(k: number, least: number): number {
  if (!isImperial()) return roundStep(k, least);
  return (ROUND_FEET.find((feet) => feet * FOOT_MM * k >= least) ?? 10_000) * FOOT_MM;
}

/** What a ruler says at a place, in metres or feet. */
export function onRule(mm: number, step: number): string {
  if (isImperial()) {
    const decimals = step < FOOT_MM ? (step < 0.2 * FOOT_MM ? 2 : 1) : 0;
    return (mm / FOOT_MM).toFixed(decimals).replace("-", "−");
  }
  const decimals = step < 10 ? 3 : step < 100 ? 2 : step < 1000 ? 1 : 0;
  return (mm / 1000).toFixed(decimals).replace("-", "−");
}

export function ruleUnit(): string {
  return isImperial() ? "ft" : "m";
}

/** A round step in words. */
export function yardstick(mm: number): string {
  if (isImperial()) return mm < FOOT_MM - 1 ? `${Math.round(mm / INCH_MM)} in` : `${Math.round(mm / FOOT_MM)} ft`;
  return mm >= 1000 ? `${mm / 1000} m` : mm >= 10 ? `${mm / 10} cm` : `${mm} mm`;
}

/** Degrees clockwise from north, to the second: `97°18'10"`. */
export function bearing(degrees: number): string {
  const seconds = Math.round(degrees * 3600);
  const two = (n: number) => String(n).padStart(2, "0");
  return `${Math.floor(seconds / 3600) % 360}°${two(Math.floor(seconds / 60) % 60)}'${two(seconds % 60)}"`;
}

/** How steep a roof's edge rises, degrees; null for a gable. */
export function pitchWords(degrees: number | null): string {
  return degrees === null ? "gable" : `${Math.round(degrees * 100) / 100}°`;
}
