/**
 * Lengths as the core prints them, for figures that move with the stick. Pure, no React.
 * Sentences and workings come from the core ready-made.
 */
import type { Phrase, Side, Unit } from "../api/client";

const NM_PER_MM = 1_000_000;
const NM_PER_INCH = 25_400_000;

const NM_PER_THOUSANDTH = 1_000;

/** Whole divisions of a length, as the core counts them; what is a tie to a thousandth goes away from nought. */
function divisions(mm: number, division: number): number {
  const nanometres = Math.round(Math.abs(mm) * 1_000) * NM_PER_THOUSANDTH;
  return Math.sign(mm) * Math.floor((2 * nanometres + NM_PER_THOUSANDTH + division) / (2 * division));
}

function mixed(count: number, perInch: number): string {
  const whole = Math.floor(count / perInch);
  let over = count % perInch;
  let under = perInch;
  while (over !== 0 && over % 2 === 0) {
    over /= 2;
    under /= 2;
  }
  if (over === 0) return `${whole}`;
  return whole === 0 ? `${over}/${under}` : `${whole} ${over}/${under}`;
}

/** A distance in the everyday style: 1/16 in, or half a millimetre. */
export function distance(mm: number, unit: Unit): string {
  if (unit === "in") return `${mixed(Math.abs(divisions(mm, NM_PER_INCH / 16)), 16)}"`;
  return `${Math.abs(divisions(mm, NM_PER_MM / 2)) / 2} mm`;
}

/** A bar's length: 1/32 in, or a tenth of a millimetre, as the core's sentences have it. */
export function fine(mm: number, unit: Unit): string {
  const count = Math.abs(divisions(mm, unit === "in" ? NM_PER_INCH / 32 : NM_PER_MM / 10));
  const printed = (count: number) => (unit === "in" ? `${mixed(count, 32)}"` : `${count / 10} mm`);
  return count === 0 && mm !== 0 ? `less than ${printed(1)}` : printed(count);
}

/** A typed length read back: 1/32 where it lies on one, tenths of a millimeter. */
export function readBack(mm: number, unit: Unit): string {
  const sign = mm < 0 ? "−" : "";
  if (unit === "mm") return `${sign}${Math.abs(divisions(mm, NM_PER_MM / 10)) / 10} mm`;
  const nanometres = Math.round(Math.abs(mm) * NM_PER_MM);
  const fine = nanometres % (NM_PER_INCH / 32) === 0 && nanometres % (NM_PER_INCH / 16) !== 0;
  const perInch = fine ? 32 : 16;
  return `${sign}${mixed(Math.abs(divisions(mm, NM_PER_INCH / perInch)), perInch)}"`;
}

/** A sideways figure as a distance and a side; `centered` where it rounds to zero. */
export function sideways(toTheLeft: number, unit: Unit): string {
  const text = distance(toTheLeft, unit);
  if (text === '0"' || text === "0 mm") return "centered";
  return `${text} ${sideOf(toTheLeft)}`;
}

export function sideOf(toTheLeft: number): Side {
  return toTheLeft < 0 ? "right" : "left";
}

/** Degrees to one decimal, unsigned. */
export function degrees(angle: number): string {
  return `${Math.abs(angle).toFixed(1)}°`;
}

const NM_PER_LB_FT = 1.3558179483;

/** A roll rate from N·m to the degree, as the core prints it. */
export function rollRate(nmPerDegree: number, unit: Unit): string {
  return unit === "in"
    ? `${(nmPerDegree / NM_PER_LB_FT).toFixed(0)} lb-ft/°`
    : `${nmPerDegree.toFixed(0)} N·m/°`;
}

const KG_PER_LB = 0.45359237;

/** A part's mass: a tenth of a pound or of a kilogram. */
export function mass(kg: number, unit: Unit): string {
  return unit === "in" ? `${(kg / KG_PER_LB).toFixed(1)} lb` : `${kg.toFixed(1)} kg`;
}

/** The sentence for a unit system. */
export function say(phrase: Phrase, unit: Unit): string {
  return unit === "in" ? phrase.in : phrase.mm;
}

/**
 * Figures set for reading: inch marks, and no line break inside a figure. Typed texts are
 * left as they are.
 */
export function withMarks(text: string): string {
  return text.replaceAll(/(?<=\d)"/g, "″").replaceAll(/(?<=\d) (?=mm\b|\d+\/\d|½)/g, "\u00a0");
}

/** Whether a day is behind us, as it is counted where the person is. */
export function isPast(day: string): boolean {
  const now = new Date();
  const two = (part: number) => String(part).padStart(2, "0");
  return day < `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
