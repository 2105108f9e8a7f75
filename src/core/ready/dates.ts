import { eachDayOfInterval, endOfMonth, endOfWeek, getISOWeek, startOfMonth, startOfWeek, type Day } from 'date-fns';
import type { ReadyKit } from './kit';
import { family, type Dial, type Values } from './types';

const CALENDAR_LANGUAGES = ['English', 'Deutsch', 'suomi', 'français', 'español'] as const;
const TAGS = ['en-GB', 'de', 'fi', 'fr', 'es'] as const;

/**
 * A month as it stands in a calendar: weeks of seven days, days of other months null; each with its ISO week number.
 */
export function monthGrid(
  year: number,
  month: number,
  firstDay: Day,
): readonly { readonly week: number; readonly days: readonly (number | null)[] }[] {
  const first = startOfMonth(new Date(year, month - 1, 1));
  const days = eachDayOfInterval({
    start: startOfWeek(first, { weekStartsOn: firstDay }),
    end: endOfWeek(endOfMonth(first), { weekStartsOn: firstDay }),
  });
  return Array.from({ length: days.length / 7 }, (_, i) => {
    const week = days.slice(i * 7, i * 7 + 7);
    return {
      // A week has the number of the ISO week that its Thursday lies in.
      week: getISOWeek(week.find((d) => d.getDay() === 4)!),
      days: week.map((d) => (d.getMonth() === first.getMonth() ? d.getDate() : null)),
    };
  });
}

const monthName = (year: number, month: number, language: number): string =>
  new Intl.DateTimeFormat(TAGS[language] ?? TAGS[0], { month: 'long' }).format(new Date(year, month - 1, 1));
/** The names of the days, from the first of the week. */
const dayNames = (firstDay: number, language: number): string[] =>
  Array.from({ length: 7 }, (_, i) =>
    // 2023 began on a Sunday.
    new Intl.DateTimeFormat(TAGS[language] ?? TAGS[0], { weekday: 'short' })
      .format(new Date(2023, 0, 1 + firstDay + i))
      .replace('.', ''),
  );

const YEAR: Dial = { id: 'year', label: 'Year', min: 1900, max: 2200, initial: 2026 };
const MONTH: Dial = { id: 'month', label: 'Month', min: 1, max: 12, initial: 11 };
const FIRST: Dial = {
  id: 'first',
  label: 'Weeks begin on',
  min: 0,
  max: 1,
  initial: 1,
  choices: ['Sunday', 'Monday'],
};
const LANGUAGE: Dial = {
  id: 'language',
  label: 'Language',
  min: 0,
  max: TAGS.length - 1,
  initial: 0,
  choices: CALENDAR_LANGUAGES,
};
const firstOf = (v: Values): Day => (v.first ? 1 : 0);

interface Cell {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}
/**
 * The names of the days and the days of a month in a box. `lined`: rules between the weeks; `boxed`: each day on a
 * field.
 */
function month(
  k: ReadyKit,
  v: Values,
  { x, y, w, h }: Cell,
  how: { lined?: boolean; boxed?: boolean; weeks?: boolean } = {},
): string[] {
  const grid = monthGrid(v.year, v.month, firstOf(v));
  const left = how.weeks ? w * 0.09 : 0;
  const [cw, ch] = [(w - left) / 7, h / (grid.length + 1)];
  const size = Math.min(cw * 0.42, ch * 0.5);
  const { dark, accent, light } = k.colours;
  const out: string[] = [];
  const names = dayNames(firstOf(v), v.language);
  for (const [i, name] of names.entries())
    out.push(
      k.text('Day', x + left + (i + 0.5) * cw, y + ch * 0.62, name, {
        size: size * 0.62,
        colour: k.colours.middle,
        align: 'middle',
      }),
    );
  for (const [row, { week, days }] of grid.entries()) {
    const top = y + (row + 1) * ch;
    if (how.lined) out.push(k.rule('Rule', x, top, w, size * 0.03, accent));
    if (how.weeks)
      out.push(k.text('Week', x, top + ch * 0.64, `${week}`, { size: size * 0.55, colour: k.colours.middle }));
    for (const [i, day] of days.entries()) {
      if (day === null) continue;
      const at = x + left + (i + 0.5) * cw;
      if (how.boxed)
        out.push(
          k.shape(
            'Field',
            'rectangle',
            { x: at - cw * 0.46, y: top + ch * 0.04, w: cw * 0.92, h: ch * 0.92 },
            { fill: accent },
          ),
        );
      out.push(
        k.text('Date', at, top + ch * 0.66, `${day}`, {
          as: 'title',
          size,
          colour: how.boxed ? light : dark,
          align: 'middle',
        }),
      );
    }
  }
  return out;
}

/** A month under its name, in the middle of the page. */
const named =
  (how: Parameters<typeof month>[3] = {}) =>
  (k: ReadyKit, v: Values): string[] => {
    const w = Math.min(k.wide, k.high) * 0.82;
    const [x, y] = [k.middle.x - w / 2, k.middle.y - w * 0.4];
    const size = w * 0.1;
    return [
      k.text('Month', x, y, monthName(v.year, v.month, v.language), { as: 'title', size, colour: k.colours.dark }),
      k.text('Year', x + w, y, `${v.year}`, { size: size * 0.6, colour: k.colours.accent, align: 'right' }),
      ...month(k, v, { x, y: y + size * 0.4, w, h: w * 0.74 }, how),
    ];
  };

export const DATES = family('Dates', [
  ['month', 'Month', ['calendar', 'month grid', 'days'], named(), [YEAR, MONTH, FIRST, LANGUAGE]],
  ['month-lined', 'Month with rules', ['calendar', 'planner'], named({ lined: true }), [YEAR, MONTH, FIRST, LANGUAGE]],
  ['month-boxed', 'Month on fields', ['calendar', 'blocks'], named({ boxed: true }), [YEAR, MONTH, FIRST, LANGUAGE]],
  [
    'month-weeks',
    'Month with week numbers',
    ['calendar', 'weeks'],
    named({ lined: true, weeks: true }),
    [YEAR, MONTH, FIRST, LANGUAGE],
  ],
  [
    'year',
    'Year at a glance',
    ['calendar', 'twelve months'],
    (k, v) => {
      const across = k.wide > k.high ? 4 : 3;
      const down = 12 / across;
      const [cw, ch] = [k.wide / across, (k.high * 0.88) / down];
      const top = k.box.y0 + k.high * 0.12;
      return [
        k.text('Year', k.middle.x, k.box.y0 + k.high * 0.07, `${v.year}`, {
          as: 'title',
          size: k.high * 0.06,
          colour: k.colours.dark,
          align: 'middle',
        }),
        ...Array.from({ length: 12 }, (_, i) => {
          const cell = { x: k.box.x0 + (i % across) * cw + cw * 0.06, y: top + Math.floor(i / across) * ch };
          const w = cw * 0.88;
          const name = monthName(v.year, i + 1, v.language);
          return k.group(name, [
            k.text('Month', cell.x + w / 2, cell.y + ch * 0.09, name, {
              as: 'title',
              size: ch * 0.08,
              colour: k.colours.dark,
              align: 'middle',
            }),
            ...month(k, { ...v, month: i + 1 }, { x: cell.x, y: cell.y + ch * 0.11, w, h: ch * 0.8 }),
          ]);
        }),
      ];
    },
    [YEAR, FIRST, LANGUAGE],
  ],
  [
    'big-day',
    'Save the day',
    ['date', 'event', 'invitation', 'save the date'],
    (k, v) => {
      const s = Math.min(k.wide, k.high) * 0.3;
      const { x, y } = k.middle;
      const on = new Date(v.year, v.month - 1, Math.min(v.day, endOfMonth(new Date(v.year, v.month - 1, 1)).getDate()));
      const weekday = new Intl.DateTimeFormat(TAGS[v.language] ?? TAGS[0], { weekday: 'long' }).format(on);
      const small = { size: s * 0.24, colour: k.colours.accent, align: 'middle' as const, tracking: 60 };
      return [
        k.text('Weekday', x, y - s * 0.85, weekday, { ...small, capitals: true }),
        k.text('Day', x, y + s * 0.1, `${on.getDate()}`, {
          as: 'title',
          size: s * 1.15,
          colour: k.colours.dark,
          align: 'middle',
          leading: 1,
        }),
        k.rule('Rule', x - s * 0.5, y + s * 0.28, s, s * 0.03, k.colours.accent),
        k.text('Month', x, y + s * 0.62, monthName(v.year, v.month, v.language), { ...small, capitals: true }),
      ];
    },
    [YEAR, MONTH, { id: 'day', label: 'Day', min: 1, max: 31, initial: 21 }, LANGUAGE],
  ],
]);
