import {
  aimedNodes,
  FURTHER_AIMS,
  isLineAim,
  lineIn,
  type Aim,
  type ChosenLetters,
  type FurtherAim,
  type LineAim,
} from './aims';
import { outlineOf } from '../model/defaults';
import type { RampSource } from '../colour/ramp';
import type { Colour, Design, DesignNode, GradientPaint, Outline, Paint, Run, Stop, Story } from '../model/schema';
import { type NodeId } from '../model/tree';
import { mm } from '../units/length';
import { setShadow, shadowOf } from './effects';
import { plain, type DesignDraft } from './history';
import { isText } from '../derive/layout';
import { looksOf } from './textPlace';
import { changeRuns } from './text';
import { type SetRun } from '../model/textLooks';

/** Half a millimetre: a line that shows and prints safely. */
const NEW_OUTLINE = mm(0.5);

/**
 * Gives the aimed part of objects a paint; `make` sees the paint that was there. Of a text, `letters` alone where they
 * are given.
 */
export function setPaint(
  d: DesignDraft,
  ids: readonly NodeId[],
  aim: Aim,
  make: (old: Paint, id: NodeId) => Paint,
  letters: ChosenLetters | null = null,
): void {
  for (const id of aimedNodes(d as Design, ids, aim)) {
    const node = d.nodes[id];
    if (aim === 'shadow') {
      const old = shadowOf(node as Design['nodes'][string]);
      const paint = old && make(old.paint, id);
      // A shadow is of one colour; none takes it away.
      if (paint?.kind === 'none') setShadow(d, [id], null);
      else if (paint?.kind === 'colour') setShadow(d, [id], { paint });
      continue;
    }
    if (node.kind === 'group') continue;
    if (isText(node as Design['nodes'][string]) && 'story' in node && (aim === 'letters' || aim === 'letterOutline')) {
      const change = (r: Run, set: SetRun): Run =>
        aim === 'letters'
          ? { ...r, fill: make(set.fill, id) }
          : { ...r, outline: withPaint(set.outline, (old) => make(old, id)) };
      changeLetters(d, id, node.story, letters, change);
      continue;
    }
    if (isLineAim(aim)) changeLine(node, aim, (line) => withPaint(line, (old) => make(old, id)));
    else if ('fills' in node) {
      const last = Math.max(0, node.fills.length - 1);
      node.fills.splice(
        last,
        1,
        make((node.fills[last] ?? { kind: 'none' }) as Paint, id) as (typeof node.fills)[number],
      );
    }
  }
}

/** Puts another line in the place of the one that an aim reaches; null: none. */
function changeLine(
  node: DesignDraft['nodes'][string],
  aim: LineAim,
  change: (line: Outline | null) => Outline | null,
): void {
  const place = lineIn(node as DesignNode, aim);
  const lines = place && (node as Partial<Record<typeof place.of, Outline[]>>)[place.of];
  if (!lines) return;
  const at = Math.max(0, place.at);
  const next = change(lines[place.at] ?? null);
  lines.splice(at, 1, ...(next ? [next] : []));
}

/** Changes the runs of a text, or those of its chosen letters. */
function changeLetters(
  d: DesignDraft,
  id: NodeId,
  story: string,
  letters: ChosenLetters | null,
  change: (r: Run, set: SetRun) => Run,
): void {
  const [from, to] = letters?.node === id ? [letters.from, letters.to] : [0, 0];
  d.stories[story] = changeRuns(
    looksOf(d),
    plain(d.stories[story]) as Story,
    from,
    to,
    change,
  ) as (typeof d.stories)[string];
}

function withPaint(outline: Outline | null, make: (old: Paint) => Paint): Outline | null {
  const paint = make(outline?.paint ?? { kind: 'none' });
  if (!outline) return paint.kind === 'none' ? null : outlineOf(paint, NEW_OUTLINE);
  return { ...outline, paint, width: outline.width > 0 ? outline.width : NEW_OUTLINE };
}

/** A flat colour on the aim; whether it overprints follows `overprintAfter`. */
export function setColour(
  d: DesignDraft,
  ids: readonly NodeId[],
  aim: Aim,
  colour: Colour,
  letters: ChosenLetters | null = null,
): void {
  const design = d as Design;
  setPaint(d, ids, aim, (old) => ({ kind: 'colour', colour, overprint: overprintAfter(design, old, colour) }), letters);
}

/**
 * Whether a part overprints once it is given a colour. Inks that overprint by default do. A switch that the last ink
 * brought along goes with that ink; one that the person set stays.
 */
export function overprintAfter(d: Design, old: Paint, next: Colour): boolean {
  if (overprintsByDefault(d, next)) return true;
  if (old.kind === 'none' || !old.overprint) return false;
  return !(old.kind === 'colour' && overprintsByDefault(d, old.colour));
}

function overprintsByDefault(d: Design, c: Colour): boolean {
  if ('swatch' in c) {
    const swatch = d.swatches.find((s) => s.id === c.swatch);
    return swatch?.kind === 'colour' && overprintsByDefault(d, swatch.colour);
  }
  return 'ink' in c && d.inks.find((i) => i.id === c.ink)?.overprints === true;
}

/** Turns overprint on or off for what is aimed at. */
export function setOverprint(
  d: DesignDraft,
  ids: readonly NodeId[],
  aim: Aim,
  overprint: boolean,
  letters: ChosenLetters | null = null,
): void {
  setPaint(d, ids, aim, (old) => (old.kind === 'none' ? old : { ...old, overprint }), letters);
}

/** Changes the line of outlines (width, caps, joins) without their paint. */
export function setOutlineStyle(
  d: DesignDraft,
  ids: readonly NodeId[],
  aim: LineAim,
  style: Partial<Omit<Outline, 'paint'>>,
  paint: Paint,
  letters: ChosenLetters | null = null,
): void {
  for (const id of aimedNodes(d as Design, ids, aim)) {
    const node = d.nodes[id];
    const change = (o: Outline | null): Outline => {
      const next = { ...(o ?? outlineOf(paint, NEW_OUTLINE)), ...style };
      // What is taken away is there no more.
      for (const key of Object.keys(next) as (keyof Outline)[]) if (next[key] === undefined) delete next[key];
      return next;
    };
    if (aim === 'letterOutline' && 'story' in node) {
      changeLetters(d, id, node.story, letters, (r, set) => ({ ...r, outline: change(set.outline) }));
    } else changeLine(node, aim, change);
  }
}

/**
 * Lays one more line below those that objects have; letters have theirs all round them. Objects with as many as can be
 * keep theirs.
 */
export function addOutline(d: DesignDraft, ids: readonly NodeId[], line: Outline): void {
  for (const id of linedNodes(d as Design, ids)) {
    const node = d.nodes[id];
    if (isText(node as DesignNode) && 'story' in node) {
      const lines = (node.letterOutlines ??= []);
      if (lines.length < FURTHER_AIMS.length) lines.unshift(line as (typeof lines)[number]);
    } else if ('outlines' in node && node.outlines.length <= FURTHER_AIMS.length) {
      // Below the topmost, which is none where the object had no line.
      if (!node.outlines.length)
        node.outlines.push(outlineOf({ kind: 'none' }, NEW_OUTLINE) as (typeof node.outlines)[number]);
      node.outlines.unshift(line as (typeof node.outlines)[number]);
    }
  }
}

/**
 * May the line that an aim reaches change places with the next one above it (1) or below it (−1)? The topmost line of
 * letters is theirs, each.
 */
export function canMoveLine(node: DesignNode, aim: LineAim, by: 1 | -1): boolean {
  const place = lineIn(node, aim);
  const lines = place && (node as Partial<Record<typeof place.of, readonly Outline[]>>)[place.of];
  return !!lines && place.at >= 0 && lines[place.at] !== undefined && lines[place.at + by] !== undefined;
}

/**
 * Changes places of the line that an aim reaches and the next one above or below it. Answers the aim that reaches it
 * now; null where nothing changed.
 */
export function moveOutline(d: DesignDraft, ids: readonly NodeId[], aim: LineAim, by: 1 | -1): LineAim | null {
  let moved = false;
  for (const id of aimedNodes(d as Design, ids, aim)) {
    const node = d.nodes[id] as DesignNode;
    if (!canMoveLine(node, aim, by)) continue;
    const { of, at } = lineIn(node, aim)!;
    const lines = (d.nodes[id] as unknown as Record<typeof of, Outline[]>)[of];
    [lines[at], lines[at + by]] = [plain(lines[at + by]), plain(lines[at])];
    moved = true;
  }
  if (!moved) return null;
  const order: readonly LineAim[] = ['outline', ...FURTHER_AIMS];
  return order[order.indexOf(aim) - by] ?? aim;
}

/** The objects of a selection that can have several lines. */
export function linedNodes(d: Design, ids: readonly NodeId[]): readonly NodeId[] {
  return [...new Set([...aimedNodes(d, ids, 'outline'), ...aimedNodes(d, ids, 'letterOutline')])];
}

/** Takes the line away that an aim reaches. */
export function removeOutline(d: DesignDraft, ids: readonly NodeId[], aim: FurtherAim): void {
  for (const id of aimedNodes(d as Design, ids, aim)) {
    const node = d.nodes[id];
    changeLine(node, aim, () => null);
    if ('letterOutlines' in node && !node.letterOutlines?.length) delete node.letterOutlines;
  }
}

/** The ramp a gradient shows, wherever it is kept. */
export function rampOf(d: Design, p: GradientPaint): RampSource {
  if ('stops' in p.ramp) return p.ramp;
  const id = p.ramp.swatch;
  const swatch = d.swatches.find((s) => s.id === id);
  return swatch?.kind === 'ramp' ? swatch : { stops: [] };
}

/** The stops of a gradient, its own or those of its swatch. */
export const stopsOf = (d: Design, p: GradientPaint): readonly Stop[] => rampOf(d, p).stops;
