import { outlineOf } from '../model/defaults';
import type { Colour, Design, GradientPaint, Ink, Outline, OwnColour, Paint, Stop, Swatch } from '../model/schema';
import { withDescendants, type NodeId } from '../model/tree';
import { mm } from '../units/length';
import { mapTuple } from '../units/tuple';
import { mapColours } from './clip';
import type { DesignDraft } from './history';
import { isText } from './box';

/** Where colour goes. Letters are the runs of a text; the frame is the box round it. */
export type Aim = 'fill' | 'outline' | 'letters' | 'letterOutline' | 'frame';

/** Half a millimetre: a line that shows and prints safely. */
const NEW_OUTLINE = mm(0.5);

/** The objects below a selection that an aim reaches; groups stand for what they hold. */
export function aimedNodes(d: Design, ids: readonly NodeId[], aim: Aim): NodeId[] {
  return [...new Set(ids.filter((id) => d.nodes[id]).flatMap((id) => withDescendants(d, id)))].filter((id) => {
    const node = d.nodes[id];
    if (node.kind === 'group') return false;
    if (aim === 'letters' || aim === 'letterOutline') return isText(node);
    if (aim === 'frame') return node.kind === 'textFrame';
    return node.kind === 'shape' || node.kind === 'path';
  });
}

/** The paint an aim shows for one object. */
export function paintAt(d: Design, id: NodeId, aim: Aim): Paint | undefined {
  const node = d.nodes[id];
  if (!node || node.kind === 'group') return undefined;
  if (aim === 'letters' || aim === 'letterOutline') {
    if (!isText(node)) return undefined;
    const run = d.stories[node.story].paragraphs[0].runs[0];
    return aim === 'letters' ? run.fill : (run.outline?.paint ?? { kind: 'none' });
  }
  if (!('fills' in node)) return undefined;
  if (aim === 'outline') return node.outlines[node.outlines.length - 1]?.paint ?? { kind: 'none' };
  return node.fills[node.fills.length - 1] ?? { kind: 'none' };
}

/** Gives the aimed part of objects a paint; `make` sees the paint that was there. */
export function setPaint(d: DesignDraft, ids: readonly NodeId[], aim: Aim, make: (old: Paint, id: NodeId) => Paint): void {
  for (const id of aimedNodes(d as Design, ids, aim)) {
    const node = d.nodes[id];
    if (node.kind === 'group') continue;
    if (isText(node as Design['nodes'][string]) && 'story' in node && (aim === 'letters' || aim === 'letterOutline')) {
      for (const p of d.stories[node.story].paragraphs)
        for (const r of p.runs) {
          if (aim === 'letters') r.fill = make(r.fill as Paint, id) as typeof r.fill;
          else r.outline = withPaint(r.outline as Outline | null, (old) => make(old, id)) as typeof r.outline;
        }
      continue;
    }
    if (!('fills' in node)) continue;
    if (aim === 'outline') {
      const last = node.outlines.length - 1;
      const next = withPaint((node.outlines[last] ?? null) as Outline | null, (old) => make(old, id));
      if (next) node.outlines.splice(Math.max(0, last), 1, next as (typeof node.outlines)[number]);
      else node.outlines.splice(Math.max(0, last), 1);
    } else {
      const last = Math.max(0, node.fills.length - 1);
      node.fills.splice(last, 1, make((node.fills[last] ?? { kind: 'none' }) as Paint, id) as (typeof node.fills)[number]);
    }
  }
}

function withPaint(outline: Outline | null, make: (old: Paint) => Paint): Outline | null {
  const paint = make(outline?.paint ?? { kind: 'none' });
  if (!outline) return paint.kind === 'none' ? null : outlineOf(paint, NEW_OUTLINE);
  return { ...outline, paint, width: outline.width > 0 ? outline.width : NEW_OUTLINE };
}

/** A flat colour on the aim; whether it overprints stays as it was. */
export function setColour(d: DesignDraft, ids: readonly NodeId[], aim: Aim, colour: Colour): void {
  setPaint(d, ids, aim, (old) => ({ kind: 'colour', colour, overprint: old.kind !== 'none' && old.overprint }));
}

export function setOverprint(d: DesignDraft, ids: readonly NodeId[], aim: Aim, overprint: boolean): void {
  setPaint(d, ids, aim, (old) => (old.kind === 'none' ? old : { ...old, overprint }));
}

/** Changes the line of outlines (width, caps, joins) without their paint. */
export function setOutlineStyle(d: DesignDraft, ids: readonly NodeId[], aim: 'outline' | 'letterOutline', style: Partial<Omit<Outline, 'paint'>>, paint: Paint): void {
  for (const id of aimedNodes(d as Design, ids, aim)) {
    const node = d.nodes[id];
    const change = (o: Outline | null): Outline => ({ ...(o ?? outlineOf(paint, NEW_OUTLINE)), ...style });
    if (aim === 'letterOutline' && 'story' in node) {
      for (const p of d.stories[node.story].paragraphs) for (const r of p.runs) r.outline = change(r.outline as Outline | null) as typeof r.outline;
    } else if ('outlines' in node) {
      const last = Math.max(0, node.outlines.length - 1);
      node.outlines.splice(last, 1, change((node.outlines[last] ?? null) as Outline | null) as (typeof node.outlines)[number]);
    }
  }
}

// Swatches and inks

export function addSwatch(d: DesignDraft, swatch: Swatch): void {
  d.swatches.push(swatch as DesignDraft['swatches'][number]);
}

/** A spot ink with its swatch; an ink of that name that is there already is used. Answers the swatch's id. */
export function addSpot(d: DesignDraft, ink: Omit<Ink, 'id'>, newId: () => string): string {
  const known = d.inks.find((i) => i.name.toLowerCase() === ink.name.toLowerCase());
  const inkId = known?.id ?? newId();
  if (!known) d.inks.push({ ...ink, id: inkId, lab: [...ink.lab], alternate: [...ink.alternate] });
  const swatch = d.swatches.find((s) => s.kind === 'colour' && 'ink' in s.colour && s.colour.ink === inkId && s.colour.tint === 1);
  if (swatch) return swatch.id;
  const id = newId();
  d.swatches.push({ id, name: ink.name, kind: 'colour', colour: { ink: inkId, tint: 1 } });
  return id;
}

export function renameSwatch(d: DesignDraft, id: string, name: string): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch) swatch.name = name;
}

/** Gives a colour swatch another colour: everything that uses it follows. */
export function recolourSwatch(d: DesignDraft, id: string, colour: OwnColour): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch?.kind === 'colour') swatch.colour = structuredClone(colour) as typeof swatch.colour;
}

export function setRampStops(d: DesignDraft, id: string, stops: readonly Stop[]): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (swatch?.kind === 'ramp') swatch.stops = structuredClone(stops) as typeof swatch.stops;
}

/** How many paints and ramps refer to a swatch. */
export function swatchUsers(d: Design, id: string): number {
  let n = 0;
  visitPaints(d, (p) => {
    if (p.kind === 'gradient' && 'swatch' in p.ramp && p.ramp.swatch === id) n++;
    mapColours(p, (c) => {
      if ('swatch' in c && c.swatch === id) n++;
      return c;
    });
  });
  for (const s of d.swatches) if (s.kind === 'ramp') n += s.stops.filter((x) => 'swatch' in x.colour && x.colour.swatch === id).length;
  return n;
}

/** Removes a swatch; what used it keeps its colour as its own. Spot inks that nothing uses any more go too. */
export function removeSwatch(d: DesignDraft, id: string): void {
  const swatch = d.swatches.find((s) => s.id === id);
  if (!swatch) return;
  // Plain data: a draft must not end up inside what replaces it.
  const own = JSON.parse(JSON.stringify(swatch)) as Swatch;
  const colour = (c: Colour): Colour => {
    if (!('swatch' in c) || c.swatch !== id || own.kind !== 'colour') return c;
    return tinted(own.colour, c.tint);
  };
  mapAllPaints(d, (p) => {
    const mapped = mapColours(p, colour);
    return mapped.kind === 'gradient' && 'swatch' in mapped.ramp && mapped.ramp.swatch === id && own.kind === 'ramp' ? { ...mapped, ramp: { stops: own.stops } } : mapped;
  });
  d.swatches = d.swatches.filter((s) => s.id !== id);
  for (const s of d.swatches) if (s.kind === 'ramp') s.stops = s.stops.map((x) => ({ ...x, colour: colour(x.colour as Colour) })) as typeof s.stops;
  dropUnusedInks(d);
}

/** An own colour at part strength, in the same terms where they allow it. */
export function tinted(c: OwnColour, by: number): OwnColour {
  if (by === 1) return c;
  if ('ink' in c) return { ...c, tint: c.tint * by };
  if ('cmyk' in c) return { cmyk: mapTuple(c.cmyk, (v) => v * by) };
  if ('gray' in c) return { gray: 1 - (1 - c.gray) * by };
  if ('rgb' in c) return { rgb: mapTuple(c.rgb, (v) => 1 - (1 - v) * by) };
  return { lab: [100 - (100 - c.lab[0]) * by, c.lab[1] * by, c.lab[2] * by] };
}

export function dropUnusedInks(d: DesignDraft): void {
  const used = new Set<string>();
  const note = (c: Colour) => {
    if ('ink' in c) used.add(c.ink);
    return c;
  };
  visitPaints(d as Design, (p) => void mapColours(p, note));
  for (const s of d.swatches) (s.kind === 'colour' ? [s.colour] : s.stops.map((x) => x.colour)).forEach((c) => note(c as Colour));
  if (d.inks.some((i) => !used.has(i.id))) d.inks = d.inks.filter((i) => used.has(i.id));
}

function visitPaints(d: Design, visit: (p: Paint) => void): void {
  for (const n of Object.values(d.nodes)) {
    if (!('fills' in n)) continue;
    n.fills.forEach(visit);
    n.outlines.forEach((o) => visit(o.paint));
  }
  for (const s of Object.values(d.stories))
    for (const p of s.paragraphs)
      for (const r of p.runs) {
        visit(r.fill);
        if (r.outline) visit(r.outline.paint);
      }
}

function mapAllPaints(d: DesignDraft, map: (p: Paint) => Paint): void {
  const put = <T>(old: T, set: (v: T) => void) => {
    const next = map(old as Paint);
    if (next !== (old as unknown)) set(next as T);
  };
  for (const n of Object.values(d.nodes)) {
    if (!('fills' in n)) continue;
    n.fills.forEach((p, i) => put(p, (v) => (n.fills[i] = v)));
    n.outlines.forEach((o) => put(o.paint, (v) => (o.paint = v)));
  }
  for (const s of Object.values(d.stories))
    for (const p of s.paragraphs)
      for (const r of p.runs) {
        put(r.fill, (v) => (r.fill = v));
        const outline = r.outline;
        if (outline) put(outline.paint, (v) => (outline.paint = v));
      }
}

/** The stops a gradient shows, wherever they are kept. */
export function stopsOf(d: Design, p: GradientPaint): readonly Stop[] {
  if ('stops' in p.ramp) return p.ramp.stops;
  const id = p.ramp.swatch;
  const swatch = d.swatches.find((s) => s.id === id);
  return swatch?.kind === 'ramp' ? swatch.stops : [];
}
