import { tinted } from '../colour/tints';
import { parseHex } from '../colour/spaces';
import type { RampSource } from '../colour/ramp';
import type { Cmyk, Colour, Design, Ink, OwnColour, Ramp, Stop, Swatch } from '../model/schema';
import { mapTuple } from '../units/tuple';
import { mapColours, mapStops } from '../model/paints';
import { before, type DesignDraft } from './history';
import { mapPaints, visitPaints } from '../model/paints';
import { proposedName } from './recipeName';

type SwatchDraft = DesignDraft['swatches'][number];

/** Puts a swatch at the end of the tray. */
export function addSwatch(d: DesignDraft, swatch: Swatch): void {
  d.swatches.push(swatch as SwatchDraft);
}

/** A spot ink with its swatch; an ink of that name that is there already is used. Answers the swatch's id. */
export function addSpot(d: DesignDraft, ink: Omit<Ink, 'id'>, newId: () => string, group?: string): string {
  const known = d.inks.find((i) => i.name.toLowerCase() === ink.name.toLowerCase());
  const inkId = known?.id ?? newId();
  if (!known) d.inks.push({ ...ink, id: inkId, lab: [...ink.lab], alternate: [...ink.alternate] });
  const swatch = d.swatches.find(
    (s) => s.kind === 'colour' && 'ink' in s.colour && s.colour.ink === inkId && s.colour.tint === 1,
  );
  if (swatch) return swatch.id;
  const id = newId();
  d.swatches.push({ id, name: ink.name, kind: 'colour', colour: { ink: inkId, tint: 1 }, ...(group && { group }) });
  return id;
}

/** Renames a swatch; that of a full spot ink renames the ink. */
export function renameSwatch(d: DesignDraft, id: string, name: string): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (!swatch) return;
  if (swatch.kind === 'colour' && 'ink' in swatch.colour && swatch.colour.tint === 1) {
    // The full tin and its ink share a name: it is the name of the plate.
    const inkId = swatch.colour.ink;
    const ink = d.inks.find((i) => i.id === inkId);
    const taken = d.inks.some((i) => i.id !== inkId && i.name.toLowerCase() === name.toLowerCase());
    if (ink && ink.name === swatch.name && !taken) ink.name = name.slice(0, 80);
  }
  swatch.name = name;
}

/**
 * Gives a colour swatch another colour: everything that uses it follows. A name made of the old numbers follows too.
 */
export function recolourSwatch(d: DesignDraft, id: string, colour: OwnColour): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch?.kind !== 'colour') return;
  if (isProposed(swatch.name, swatch.colour as OwnColour)) swatch.name = proposedName(colour) ?? swatch.name;
  swatch.colour = structuredClone(colour) as typeof swatch.colour;
}

const isProposed = (name: string, colour: OwnColour): boolean =>
  name === proposedName(colour) || ('rgb' in colour && parseHex(name) !== null && name.startsWith('#'));

/** Gives a gradient swatch other stops, or another way of mixing: everything that uses it follows. */
export function setRamp(d: DesignDraft, id: string, { stops, mixing }: RampSource): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch?.kind !== 'ramp') return;
  swatch.stops = structuredClone(stops) as typeof swatch.stops;
  if (mixing) swatch.mixing = mixing;
  else delete swatch.mixing;
}

/** How many paints and ramps refer to each swatch; those without users are not listed. */
export function usersOfSwatches(d: Design): ReadonlyMap<string, number> {
  const users = new Map<string, number>();
  const note = (id: string) => users.set(id, (users.get(id) ?? 0) + 1);
  const colour = (c: Colour) => {
    if ('swatch' in c) note(c.swatch);
    return c;
  };
  visitPaints(d, (p) => {
    if (p.kind === 'gradient' && 'swatch' in p.ramp) note(p.ramp.swatch);
    mapColours(p, colour);
  });
  for (const s of d.swatches) if (s.kind === 'ramp') s.stops.forEach((x) => colour(x.colour));
  return users;
}

/** How many paints and stops use a swatch. */
export const swatchUsers = (d: Design, id: string): number => usersOfSwatches(d).get(id) ?? 0;

/** Puts one colour in place of another wherever it is referred to, ramps included. */
function mapEverywhere(d: DesignDraft, colour: (c: Colour) => Colour, ramp: (swatch: string) => Ramp): void {
  mapPaints(d, (p) => {
    const mapped = mapColours(p, colour);
    if (mapped.kind !== 'gradient' || !('swatch' in mapped.ramp)) return mapped;
    const next = ramp(mapped.ramp.swatch);
    return 'swatch' in next && next.swatch === mapped.ramp.swatch ? mapped : { ...mapped, ramp: next };
  });
  for (const s of d.swatches) {
    if (s.kind !== 'ramp') continue;
    const stops = mapStops(s.stops as Stop[], colour);
    if (stops !== (s.stops as readonly Stop[])) s.stops = stops as typeof s.stops;
  }
}

/** Removes a swatch; what used it keeps its colour as its own. Spot inks that nothing uses any more go too. */
export function removeSwatch(d: DesignDraft, id: string): void {
  const swatch = before(d).swatches.find((s) => s.id === id);
  if (!swatch) return;
  d.swatches = d.swatches.filter((s) => s.id !== id);
  mapEverywhere(
    d,
    (c) => ('swatch' in c && c.swatch === id && swatch.kind === 'colour' ? tinted(swatch.colour, c.tint) : c),
    (r) =>
      r === id && swatch.kind === 'ramp'
        ? { stops: swatch.stops, ...(swatch.mixing && { mixing: swatch.mixing }) }
        : { swatch: r },
  );
  dropUnusedInks(d);
}

/** Gives all that one swatch has to another of its kind; the first is then removed. Answers whether it could. */
export function replaceSwatch(d: DesignDraft, from: string, to: string): boolean {
  const [a, b] = [d.swatches.find((s) => s.id === from), d.swatches.find((s) => s.id === to)];
  if (!a || !b || a === b || a.kind !== b.kind) return false;
  repoint(d, new Map([[from, to]]));
  d.swatches = d.swatches.filter((s) => s.id !== from);
  dropUnusedInks(d);
  return true;
}

function repoint(d: DesignDraft, map: ReadonlyMap<string, string>): void {
  mapEverywhere(
    d,
    (c) => ('swatch' in c && map.has(c.swatch) ? { ...c, swatch: map.get(c.swatch)! } : c),
    (r) => ({ swatch: map.get(r) ?? r }),
  );
}

/** Makes swatches of the same colour one: the first stays, with its name. Answers how many went. */
export function mergeDuplicates(d: DesignDraft): number {
  const kept = new Map<string, string>();
  const gone = new Map<string, string>();
  for (const s of d.swatches) {
    const key = JSON.stringify(s.kind === 'colour' ? s.colour : [s.stops, s.mixing]);
    const first = kept.get(key);
    if (first) gone.set(s.id, first);
    else kept.set(key, s.id);
  }
  if (!gone.size) return 0;
  repoint(d, gone);
  d.swatches = d.swatches.filter((s) => !gone.has(s.id));
  return gone.size;
}

/** Removes swatches that nothing uses, and inks left over. A ramp that nothing uses lets its colours go too. */
export function removeUnused(d: DesignDraft): number {
  const first = d.swatches.length;
  for (let left = -1; left !== d.swatches.length;) {
    left = d.swatches.length;
    const users = usersOfSwatches(d as Design);
    if (d.swatches.some((s) => !users.has(s.id))) d.swatches = d.swatches.filter((s) => users.has(s.id));
  }
  dropUnusedInks(d);
  return first - d.swatches.length;
}

// ——— groups and order

/** Puts swatches into a group of the tray, or (null) into none. */
export function groupSwatches(d: DesignDraft, ids: readonly string[], group: string | null): void {
  for (const s of d.swatches) {
    if (!ids.includes(s.id)) continue;
    if (group) s.group = group;
    else delete s.group;
  }
}

/** Renames a group of the tray. */
export function renameGroup(d: DesignDraft, from: string, to: string): void {
  groupSwatches(
    d,
    d.swatches.filter((s) => s.group === from).map((s) => s.id),
    to,
  );
}

/** The tray's order: swatches without a group first, then each group as it first appears. */
export function swatchGroups(
  swatches: readonly Swatch[],
): { readonly name: string | null; readonly swatches: readonly Swatch[] }[] {
  const groups = new Map<string | null, Swatch[]>([[null, []]]);
  for (const s of swatches) {
    const key = s.group ?? null;
    const list = groups.get(key);
    if (list) list.push(s);
    else groups.set(key, [s]);
  }
  return [...groups].map(([name, list]) => ({ name, swatches: list })).filter((g) => g.swatches.length > 0);
}

/** Moves a swatch before another (null: to the end), into that one's group. */
export function moveSwatch(d: DesignDraft, id: string, beforeId: string | null): void {
  const at = d.swatches.findIndex((s) => s.id === id);
  if (at < 0 || id === beforeId) return;
  const [swatch] = d.swatches.splice(at, 1);
  const to = beforeId === null ? d.swatches.length : d.swatches.findIndex((s) => s.id === beforeId);
  const there = d.swatches[to];
  if (there) {
    if (there.group) swatch.group = there.group;
    else delete swatch.group;
  }
  d.swatches.splice(to < 0 ? d.swatches.length : to, 0, swatch);
}

/** Moves a swatch one place along the tray, as the tray shows it. */
export function stepSwatch(d: DesignDraft, id: string, by: -1 | 1): void {
  const shown = swatchGroups((d as Design).swatches).flatMap((g) => g.swatches);
  const at = shown.findIndex((s) => s.id === id);
  const other = shown[at + by];
  if (at < 0 || !other) return;
  const next = shown[at + 2];
  if (by < 0) moveSwatch(d, id, other.id);
  else moveSwatch(d, id, next && next.group === other.group ? next.id : null);
  const moved = d.swatches.find((s) => s.id === id)!;
  if (other.group) moved.group = other.group;
  else delete moved.group;
}

/** Sorts by a key, ramps last; equal keys keep their order. */
export function sortSwatches(d: DesignDraft, key: (s: Swatch) => number | string): void {
  const keyed = (d as Design).swatches.map((s) => ({ id: s.id, ramp: s.kind === 'ramp' ? 1 : 0, key: key(s) }));
  const compare = (a: number | string, b: number | string) =>
    typeof a === 'string' ? a.localeCompare(String(b), 'en', { numeric: true }) : a - Number(b);
  const order = new Map([...keyed].sort((a, b) => a.ramp - b.ramp || compare(a.key, b.key)).map((k, i) => [k.id, i]));
  if (keyed.some((k, i) => order.get(k.id) !== i))
    d.swatches = [...d.swatches].sort((a, b) => order.get(a.id)! - order.get(b.id)!);
}

// ——— spot and process

/** Makes a process swatch an ink of its own, with the numbers it had as its stand-in. */
export function makeSpot(d: DesignDraft, id: string, ink: Pick<Ink, 'lab' | 'alternate'>, newId: () => string): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch?.kind !== 'colour' || 'ink' in swatch.colour) return;
  const names = new Set(d.inks.map((i) => i.name.toLowerCase()));
  const base = swatch.name.slice(0, 70) || 'Spot';
  let name = base;
  for (let n = 2; names.has(name.toLowerCase()); n++) name = `${base} ${n}`;
  const inkId = newId();
  d.inks.push({ id: inkId, name, lab: [...ink.lab], alternate: [...ink.alternate] });
  swatch.colour = { ink: inkId, tint: 1 };
}

/** Makes a spot swatch a process colour: its ink's stand-in recipe. The ink goes when nothing else uses it. */
export function makeProcess(d: DesignDraft, id: string): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch?.kind !== 'colour' || !('ink' in swatch.colour)) return;
  const { ink: inkId, tint } = swatch.colour;
  const ink = before(d).inks.find((i) => i.id === inkId);
  if (!ink) return;
  swatch.colour = { cmyk: [...mapTuple(ink.alternate, (v) => v * tint)] as [number, number, number, number] };
  dropUnusedInks(d);
}

/** An own colour made darker by a share 0…1: black ink rises, light falls. Null where an ink has no darker form. */
export function shaded(c: OwnColour, by: number): OwnColour | null {
  if ('ink' in c) return null;
  if ('cmyk' in c) return { cmyk: [c.cmyk[0], c.cmyk[1], c.cmyk[2], c.cmyk[3] + (1 - c.cmyk[3]) * by] satisfies Cmyk };
  if ('gray' in c) return { gray: c.gray * (1 - by) };
  if ('rgb' in c) return { rgb: mapTuple(c.rgb, (v) => v * (1 - by)) };
  return { lab: [c.lab[0] * (1 - by), c.lab[1] * (1 - by), c.lab[2] * (1 - by)] };
}

function dropUnusedInks(d: DesignDraft): void {
  const used = new Set<string>();
  const note = (c: Colour) => {
    if ('ink' in c) used.add(c.ink);
    return c;
  };
  visitPaints(d as Design, (p) => void mapColours(p, note));
  for (const s of d.swatches)
    (s.kind === 'colour' ? [s.colour] : s.stops.map((x) => x.colour)).forEach((c) => note(c as Colour));
  if (d.inks.some((i) => !used.has(i.id))) d.inks = d.inks.filter((i) => used.has(i.id));
}

// ——— inks

/** Switches of a spot ink. */
export function setInk(
  d: DesignDraft,
  id: string,
  change: Partial<Pick<Ink, 'asStandIn' | 'opaque' | 'overprints'>>,
): void {
  const ink = d.inks.find((i) => i.id === id);
  if (!ink) return;
  for (const key of ['asStandIn', 'opaque', 'overprints'] as const) {
    if (change[key] === undefined) continue;
    if (change[key]) ink[key] = true;
    else delete ink[key];
  }
}

/** Gives an ink another stand-in recipe. */
export function setStandIn(d: DesignDraft, id: string, alternate: Cmyk): void {
  const ink = d.inks.find((i) => i.id === id);
  if (ink) ink.alternate = [...alternate];
}

/** Moves an ink earlier (negative) or later in the order of printing. */
export function moveInk(d: DesignDraft, id: string, by: number): void {
  const at = d.inks.findIndex((i) => i.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= d.inks.length) return;
  const [ink] = d.inks.splice(at, 1);
  d.inks.splice(to, 0, ink);
}

/** Makes two spot inks one: all that is printed in the first is printed in the second from now on. */
export function mergeInks(d: DesignDraft, from: string, into: string): void {
  const other = (c: Colour): Colour => ('ink' in c && c.ink === from ? { ...c, ink: into } : c);
  mapEverywhere(d, other, (swatch) => ({ swatch }));
  for (const s of d.swatches)
    if (s.kind === 'colour' && 'ink' in s.colour && s.colour.ink === from) s.colour.ink = into;
  d.inks = d.inks.filter((i) => i.id !== from);
}

/** Takes an ink that nothing is printed in out of the design, with its swatches. */
export function removeInk(d: DesignDraft, id: string): void {
  d.swatches = d.swatches.filter((s) => s.kind !== 'colour' || !('ink' in s.colour) || s.colour.ink !== id);
  dropUnusedInks(d);
}
