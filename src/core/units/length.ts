/** Lengths inside are points: 1/72 inch. CSS px are 1/96 inch (CSS Values 4 §6.2). */
export const UNITS = {
  mm: 72 / 25.4,
  cm: 720 / 25.4,
  in: 72,
  pt: 1,
  px: 72 / 96,
} as const;
export type Unit = keyof typeof UNITS;
export const UNIT_NAMES = Object.keys(UNITS) as Unit[];

/** A length of a unit in points. */
export const toPoints = (value: number, unit: Unit): number => value * UNITS[unit];
/** Points as a length of a unit. */
export const fromPoints = (points: number, unit: Unit): number => points / UNITS[unit];
/** Millimetres in points. */
export const mm = (value: number): number => value * UNITS.mm;

/** At most `decimals` places, no trailing zeros, a real minus never `-0`. */
export function formatNumber(value: number, decimals = 2): string {
  const fixed = value.toFixed(decimals);
  const short = fixed.includes('.') ? fixed.replace(/0+$/, '').replace(/\.$/, '') : fixed;
  return short === '-0' ? '0' : short;
}

const PLACES: Record<Unit, number> = { mm: 2, cm: 3, in: 3, pt: 2, px: 2 };

/** A length in points as text with its unit: `85 mm`. */
export function formatLength(points: number, unit: Unit, decimals = PLACES[unit]): string {
  return `${formatNumber(fromPoints(points, unit), decimals)} ${unit}`;
}
