import { PROFILES } from '../model/defaults';
import { limitsSchema, type Limits } from '../model/checksSchema';
import type { Design } from '../model/schema';
import { mm } from '../units/length';

/**
 * Named sets of limits, by the way of printing. Values are common practice of the trade: what printers ask for varies
 * by a little, and each set can be changed.
 */
export const LIMIT_SETS: readonly Limits[] = [
  {
    name: 'Sheetfed, coated',
    ...{ line: 0.25, freeLine: 0.5, text: 5, mixedText: 7, freeText: 6, richText: 12, safe: mm(3) },
    ...{ softPpi: 225, coarsePpi: 150, mostPpi: 900, spots: 2, inks: 6 },
  },
  {
    name: 'Sheetfed, uncoated',
    ...{ line: 0.35, freeLine: 0.75, text: 6, mixedText: 8, freeText: 7, richText: 14, safe: mm(3) },
    ...{ softPpi: 200, coarsePpi: 135, mostPpi: 900, spots: 2, inks: 6 },
  },
  {
    name: 'Newsprint',
    ...{ line: 0.5, freeLine: 1, text: 7, mixedText: 10, freeText: 10, richText: 18, safe: mm(5) },
    ...{ softPpi: 150, coarsePpi: 100, mostPpi: 600, spots: 1, inks: 5 },
  },
  {
    name: 'Digital',
    ...{ line: 0.25, freeLine: 0.5, text: 5, mixedText: 6, freeText: 6, richText: 10, safe: mm(3) },
    ...{ softPpi: 200, coarsePpi: 135, mostPpi: 900, spots: 0, inks: 4 },
  },
  {
    name: 'Screen printing',
    ...{ line: 0.75, freeLine: 1, text: 8, mixedText: 14, freeText: 10, richText: 24, safe: mm(3) },
    ...{ softPpi: 150, coarsePpi: 100, mostPpi: 600, spots: 6, inks: 6 },
  },
  {
    name: 'Engraving, one ink',
    ...{ line: 0.6, freeLine: 0.85, text: 8, mixedText: 8, freeText: 9, richText: 12, safe: mm(2) },
    ...{ softPpi: 300, coarsePpi: 200, mostPpi: 1800, spots: 1, inks: 1 },
  },
  {
    name: 'Logo',
    ...{ line: 0.5, freeLine: 0.75, text: 6, mixedText: 8, freeText: 8, richText: 12, safe: 0 },
    ...{ softPpi: 300, coarsePpi: 200, mostPpi: 1800, spots: 3, inks: 3 },
  },
];

/** The limits of a design: its own, or those of the paper it is made for. */
export function limitsOf(d: Pick<Design, 'checks' | 'profile'>): Limits {
  const paper = PROFILES.findIndex((p) => p.file === d.profile.file);
  return d.checks?.limits ?? LIMIT_SETS[Math.max(0, paper)];
}

/** The set that is made for another paper than the design is; null where there is no such doubt. */
export function otherPaper(d: Pick<Design, 'checks' | 'profile'>): string | null {
  const made = LIMIT_SETS.slice(0, PROFILES.length).findIndex((set) => set.name === d.checks?.limits?.name);
  return made >= 0 && PROFILES.some((p) => p.file === d.profile.file) && PROFILES[made].file !== d.profile.file
    ? PROFILES[made].name
    : null;
}

/** A set as a file that others can open. */
export const writeLimits = (limits: Limits): string =>
  JSON.stringify({ format: LIMITS_FORMAT, ...limits }, null, 2) + '\n';

const LIMITS_FORMAT = 'holvet-limits/1';
/** No set of limits is longer. */
const MOST_TEXT = 20_000;

/** A set out of a file that came from outside. `message` goes on after “holds no limits: ”. */
export function readLimits(
  text: string,
): { readonly ok: true; readonly limits: Limits } | { readonly ok: false; readonly message: string } {
  if (text.length > MOST_TEXT) return { ok: false, message: 'it is far too long.' };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { ok: false, message: 'it is no JSON. Save the limits once more, and open that file.' };
  }
  if (typeof value !== 'object' || value === null || !('format' in value) || value.format !== LIMITS_FORMAT)
    return { ok: false, message: `it does not say “${LIMITS_FORMAT}”. Open a file that was saved here.` };
  const { format: _format, ...rest } = value;
  const parsed = limitsSchema.safeParse(rest);
  if (parsed.success) return { ok: true, limits: parsed.data };
  const [issue] = parsed.error.issues;
  return {
    ok: false,
    message: `“${issue.path.join('.') || 'the file'}” is not as it should be. Mend it, or save the limits once more.`,
  };
}
