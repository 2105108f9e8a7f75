import { outlineOf } from '../model/defaults';
import type { RampSource } from '../colour/ramp';
import type { Colour, Design, DesignNode, GradientPaint, Outline, Paint, Run, Stop, Story } from '../model/schema';
import { isDraft } from 'mutative';
import { childrenOf, hidesOperands, holdersOf, lookOf, type NodeId } from '../model/tree';
import { mm } from '../units/length';
import { setShadow, shadowOf } from './effects';
import { plain, type DesignDraft } from './history';
import { isText } from '../derive/layout';
import { changeRuns, lettersAt, looksOf } from './text';
import { firstLetters, type SetRun } from '../model/textLooks';

/** Where colour goes. Letters are the runs of a text; the frame is the box or shape round it; the ground is the page's, and no object's. */
export type Aim = 'fill' | 'letters' | 'frame' | 'shadow' | 'ground' | LineAim;
export type LineAim = 'outline' | 'letterOutline' | 'frameOutline' | FurtherAim;
/** Lines below the one that is `outline` or, of a text, `letterOutline`: the second from the top, and so on. */
export const FURTHER_AIMS = ['outline2', 'outline3', 'outline4', 'outline5'] as const;
export type FurtherAim = (typeof FURTHER_AIMS)[number];
/** Is a line below the topmost aimed at? */
export const isFurtherAim = (aim: Aim): aim is FurtherAim => (FURTHER_AIMS as readonly Aim[]).includes(aim);
/** Is an outline aimed at? */
export const isLineAim = (aim: Aim): aim is LineAim =>
  aim === 'outline' || aim === 'letterOutline' || aim === 'frameOutline' || isFurtherAim(aim);

/** A stretch of letters of one text: what is aimed at letters reaches them alone. */
export interface ChosenLetters {
  readonly node: NodeId;
  readonly from: number;
  readonly to: number;
}

/** Half a millimetre: a line that shows and prints safely. */
const NEW_OUTLINE = mm(0.5);

/**
 * The objects below a selection that an aim reaches: groups and repeats stand for what they hold, the operands of a
 * combination for the combination, whose paint is the one that is seen.
 */
export function aimedNodes(d: Design, ids: readonly NodeId[], aim: Aim): readonly NodeId[] {
  if (isDraft(d.nodes) || ids.length < MANY) return painted(d, ids).filter((id) => takes(d, id, aim));
  const look = lookOf(d.nodes);
  let known = aimed.get(ids);
  if (known?.look !== look)
    aimed.set(ids, (known = { look, painted: painted(d, ids), found: new Map(), paints: new Map() }));
  let found = known.found.get(aim);
  if (!found) known.found.set(aim, (found = known.painted.filter((id) => takes(d, id, aim))));
  return found;
}

/** From so many objects on, what they come to is remembered for the same list of them. */
const MANY = 50;
const aimed = new WeakMap<readonly NodeId[], Aimed>();
interface Aimed {
  readonly look: object;
  readonly painted: readonly NodeId[];
  readonly found: Map<Aim, readonly NodeId[]>;
  readonly paints: Map<Aim, readonly (Paint | undefined)[]>;
}

/** The paints an aim shows for what it reaches below a selection, object by object as `aimedNodes` lists them. */
export function aimedPaints(
  d: Design,
  ids: readonly NodeId[],
  aim: Aim,
  letters: ChosenLetters | null = null,
): readonly (Paint | undefined)[] {
  const nodes = aimedNodes(d, ids, aim);
  // Letters have theirs in the stories.
  const known =
    isDraft(d.nodes) || ids.length < MANY || aim === 'letters' || aim === 'letterOutline' ? undefined : aimed.get(ids);
  let paints = known?.paints.get(aim);
  if (!paints) {
    paints = nodes.map((id) => paintAt(d, id, aim, letters));
    known?.paints.set(aim, paints);
  }
  return paints;
}

/** What a selection holds, and the combinations that stand for it. */
function painted(d: Design, ids: readonly NodeId[]): readonly NodeId[] {
  const owners = operandOwners(d);
  const reached = new Set<NodeId>();
  const reach = (id: NodeId) => {
    reached.add(owners.get(id) ?? id);
    childrenOf(d.nodes[id]).forEach(reach);
  };
  for (const id of ids) if (d.nodes[id]) reach(id);
  return [...reached];
}

/** Has an object what an aim points at? */
function takes(d: Design, id: NodeId, aim: Aim): boolean {
  const node = d.nodes[id];
  if (aim === 'shadow') return shadowOf(node) !== undefined;
  if (aim === 'ground' || node.kind === 'group' || node.kind === 'repeat') return false;
  if (isFurtherAim(aim)) return lineAt(node, aim) !== undefined;
  if (node.kind === 'combination') return node.op !== 'divide' && (aim === 'fill' || aim === 'outline');
  if (aim === 'letters' || aim === 'letterOutline') return isText(node);
  if (aim === 'frame' || aim === 'frameOutline') return node.kind === 'textFrame';
  return node.kind === 'shape' || node.kind === 'path';
}

const owners = new WeakMap<object, Map<NodeId, NodeId>>();
/** For everything inside combinations, the outermost combination whose paint covers it. */
function operandOwners(d: Design): Map<NodeId, NodeId> {
  const { nodes } = d;
  // A draft is looked into afresh: it may change between two looks.
  const known = isDraft(nodes) ? undefined : owners.get(lookOf(nodes));
  if (known) return known;
  const made = new Map<NodeId, NodeId>();
  const claim = (id: NodeId, owner: NodeId) => {
    for (const child of childrenOf(nodes[id])) {
      made.set(child, owner);
      claim(child, owner);
    }
  };
  for (const id of holdersOf(d)) if (hidesOperands(nodes[id]) && !made.has(id)) claim(id, id);
  if (!isDraft(nodes)) owners.set(lookOf(nodes), made);
  return made;
}

/** The lines of an object that aims reach, and which of them this one does: bottom to top. */
function lineIn(
  node: DesignNode,
  aim: LineAim,
): { readonly of: 'outlines' | 'letterOutlines'; readonly at: number } | null {
  const below = isFurtherAim(aim) ? FURTHER_AIMS.indexOf(aim) + 1 : 0;
  // The topmost line of letters is set letter by letter.
  if (isText(node) && below) return { of: 'letterOutlines', at: (node.letterOutlines?.length ?? 0) - below };
  return 'outlines' in node ? { of: 'outlines', at: node.outlines.length - 1 - below } : null;
}

/** The line that an aim reaches, letters' own left out. */
export function lineAt(node: DesignNode, aim: LineAim): Outline | undefined {
  const place = lineIn(node, aim);
  return place ? (node as Partial<Record<typeof place.of, readonly Outline[]>>)[place.of]?.[place.at] : undefined;
}

/** The paint an aim shows for one object. */
export function paintAt(d: Design, id: NodeId, aim: Aim, letters: ChosenLetters | null = null): Paint | undefined {
  const node = d.nodes[id];
  if (node && aim === 'shadow') return shadowOf(node)?.paint;
  if (!node || node.kind === 'group' || node.kind === 'repeat') return undefined;
  if (aim === 'letters' || aim === 'letterOutline') {
    if (!isText(node)) return undefined;
    const story = plain(d.stories[node.story]);
    const run = letters?.node === id ? lettersAt(looksOf(d), story, letters.to) : firstLetters(looksOf(d), story);
    return aim === 'letters' ? run.fill : (run.outline?.paint ?? { kind: 'none' });
  }
  if (isLineAim(aim)) {
    const line = lineAt(node, aim);
    return line || !('fills' in node) || isFurtherAim(aim) ? line?.paint : { kind: 'none' };
  }
  if (!('fills' in node)) return undefined;
  return node.fills[node.fills.length - 1] ?? { kind: 'none' };
}

/** Gives the aimed part of objects a paint; `make` sees the paint that was there. Of a text, `letters` alone where they are given. */
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

/** Lays one more line below those that objects have; letters have theirs all round them. Objects with as many as can be keep theirs. */
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
