import * as z from 'zod/mini';
import { IDENTITY, multiply, type Matrix } from '../geometry/matrix';
import { newDesign, setupOf } from '../model/defaults';
import type { OwnFace } from '../model/faceSchema';
import { faultText } from '../model/faultText';
import { CURRENT_VERSION, migrate, versionOf } from '../model/migrations';
import { coloursOf, mapColours, mapPaints, visitPaints } from '../model/paints';
import { verifyDesign } from '../model/verify';
import {
  type Colour,
  type Design,
  type DesignNode,
  type Ink,
  type Page,
  type Paint,
  type Picture,
  type Story,
  type Swatch,
  type TextLook,
} from '../model/schema';
import { pageMatrix, topmost, withDescendants, type NodeId, pageById } from '../model/tree';
import { adoptFace, adoptLooks, facesUsed, looksUsed, withFrames, withLooks } from './carryText';
import type { DesignDraft } from './history';

export const CLIP_FORMAT = 'holvet-clip/3';

/** Objects on their way to another place or design, with the stories, swatches and inks they use. */
export interface Clip {
  readonly format: typeof CLIP_FORMAT;
  readonly roots: readonly NodeId[];
  readonly nodes: Readonly<Record<NodeId, DesignNode>>;
  readonly stories: Readonly<Record<string, Story>>;
  readonly swatches: readonly Swatch[];
  readonly inks: readonly Ink[];
  /** Absent: none. */
  readonly pictures?: readonly Picture[];
  /** Absent: none. */
  readonly textLooks?: readonly TextLook[];
  /** Absent: none but those that ship. */
  readonly faces?: readonly OwnFace[];
}

/** What a clip is as a whole; its parts are held against the model's own rules. */
const clipSchema = z.object({
  format: z.literal(CLIP_FORMAT),
  roots: z.array(z.string()).check(z.minLength(1)),
  nodes: z.record(z.string(), z.unknown()),
  stories: z.record(z.string(), z.unknown()),
  swatches: z.array(z.unknown()),
  inks: z.array(z.unknown()),
  pictures: z.optional(z.array(z.unknown())),
  textLooks: z.optional(z.array(z.unknown())),
  faces: z.optional(z.array(z.unknown())),
});

export type ReadClip =
  | { readonly ok: true; readonly clip: Clip }
  | { readonly ok: false; /** Goes on after “What was copied cannot be pasted: ”. */ readonly why: string };

/** No clip is longer: a browser's clipboard holds no more at once. */
const MOST_TEXT = 100_000_000;

/**
 * A clip from text that came from outside. It is held against every rule of the model, as the design that it is a part
 * of.
 */
export function parseClip(text: string): ReadClip {
  if (text.length > MOST_TEXT)
    return { ok: false, why: 'it is too large for the clipboard. Save the design as a file instead.' };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { ok: false, why: 'it is damaged. Copy it once more.' };
  }
  const format = typeof value === 'object' && value !== null && 'format' in value ? value.format : null;
  const migrated = migrate(value, versionOf(format, 'holvet-clip') ?? CURRENT_VERSION);
  if (migrated === 'newer')
    return { ok: false, why: 'it was copied in a newer version of Holvet. Reload this page to bring it up to date.' };
  const parsed = clipSchema.safeParse(migrated);
  if (!parsed.success)
    return {
      ok: false,
      why: `it is damaged at ${parsed.error.issues[0].path.join('.') || 'its start'}. Copy it once more.`,
    };
  const clip = parsed.data as unknown as Clip;
  const verified = verifyDesign(designOfClip(clip));
  if (!verified.ok) return { ok: false, why: faultText(verified, clip) };
  const { nodes, stories, swatches, inks, pictures, textLooks, faces } = verified.design;
  return {
    ok: true,
    clip: {
      format: clip.format,
      roots: clip.roots,
      nodes,
      stories,
      swatches,
      inks,
      ...(pictures && { pictures }),
      ...(textLooks && { textLooks }),
      ...(faces && { faces }),
    },
  };
}

/** A design that holds nothing but a clip: what holds for designs holds for what goes into them. */
export function designOfClip(clip: Clip): Design {
  const making = { newId: () => 'clip', now: () => '2000-01-01T00:00:00.000Z' };
  const { inks, swatches, nodes, stories, pictures, textLooks, faces, roots } = clip;
  return {
    ...newDesign('Clip', setupOf(100, 100), making),
    inks,
    swatches,
    nodes,
    stories,
    ...(pictures && { pictures }),
    ...(textLooks && { textLooks }),
    ...(faces && { faces }),
    pages: [{ id: 'clip-page', name: '', children: roots }],
  };
}

/** Objects of a page as a clip, with all they use; null where none of the ids is on it. */
export function copyNodes(d: Design, page: Page, ids: readonly NodeId[]): Clip | null {
  const roots = topmost(d, page, ids);
  if (!roots.length) return null;
  const nodes: Record<NodeId, DesignNode> = {};
  const stories: Record<string, Story> = {};
  for (const root of roots)
    for (const id of withDescendants(d, root)) {
      const node = d.nodes[id];
      // Roots carry their place on the page, so that they can be put into any group or page.
      nodes[id] = id === root ? { ...node, transform: pageMatrix(d, page, id) } : node;
      if ('story' in node) stories[node.story] = d.stories[node.story];
    }
  for (const [key, story] of Object.entries(stories))
    stories[key] = withFrames(story, (id) => (id in nodes ? id : null));
  const textLooks = looksUsed(d, stories);
  const faces = facesUsed(d, stories, textLooks);
  const swatchIds = new Set<string>();
  const inkIds = new Set<string>();
  const pictureIds = new Set<string>();
  const collect = (c: Colour) => {
    if ('swatch' in c) swatchIds.add(c.swatch);
    else if ('ink' in c) inkIds.add(c.ink);
  };
  visitPaints({ nodes, stories, textLooks }, (p) => {
    if (p.kind === 'gradient' && 'swatch' in p.ramp) swatchIds.add(p.ramp.swatch);
    if (p.kind === 'picture') pictureIds.add(p.picture);
    coloursOf(p).forEach(collect);
  });
  const swatches = d.swatches.filter((s) => swatchIds.has(s.id));
  for (const s of swatches) (s.kind === 'colour' ? [s.colour] : s.stops.map((x) => x.colour)).forEach(collect);
  // A ramp swatch may use colour swatches that nothing else does.
  for (const s of d.swatches) if (swatchIds.has(s.id) && !swatches.includes(s)) swatches.push(s);
  for (const s of swatches) if (s.kind === 'colour' && 'ink' in s.colour) inkIds.add(s.colour.ink);
  return {
    format: CLIP_FORMAT,
    roots,
    nodes,
    stories,
    swatches,
    inks: d.inks.filter((i) => inkIds.has(i.id)),
    ...(pictureIds.size && { pictures: (d.pictures ?? []).filter((p) => pictureIds.has(p.id)) }),
    ...(textLooks.length && { textLooks }),
    ...(faces.length && { faces }),
  };
}

/** Into which group, combination or repeat a clip goes, and the map from the page into its space. */
export interface PasteInto {
  readonly parent: NodeId;
  readonly back: Matrix;
}

/**
 * Puts a clip on a page (or into something on it), taken through a map of the page, on top of everything there. Answers
 * the new ids.
 */
export function pasteClip(
  d: DesignDraft,
  pageId: string,
  clip: Clip,
  newId: () => string,
  map: Matrix,
  into: PasteInto | null = null,
): NodeId[] {
  const page = pageById(d, pageId);
  if (!page) throw new Error(`unknown page: ${pageId}`);
  const inkMap = new Map(clip.inks.map((ink) => [ink.id, adoptInk(d, ink, newId)]));
  const swatchMap = new Map<string, string>();
  const colour = (c: Colour): Colour => {
    if ('swatch' in c) return { ...c, swatch: swatchMap.get(c.swatch) ?? c.swatch };
    if ('ink' in c) return { ...c, ink: inkMap.get(c.ink) ?? c.ink };
    return c;
  };
  // Plain colours first: ramps refer to them.
  for (const s of [...clip.swatches].sort((a, b) => Number(a.kind === 'ramp') - Number(b.kind === 'ramp'))) {
    const own =
      s.kind === 'colour'
        ? { ...s, colour: colour(s.colour) as typeof s.colour }
        : { ...s, stops: s.stops.map((x) => ({ ...x, colour: colour(x.colour) })) };
    swatchMap.set(s.id, adoptSwatch(d, own, newId));
  }
  const ids = new Map(Object.keys(clip.nodes).map((id) => [id, newId()]));
  const storyIds = new Map(Object.keys(clip.stories).map((id) => [id, newId()]));
  const pictureMap = new Map((clip.pictures ?? []).map((p) => [p.id, adoptPicture(d, p, newId)]));
  const paint = (p: Paint): Paint => {
    if (p.kind === 'picture')
      return { ...(mapColours(p, colour) as typeof p), picture: pictureMap.get(p.picture) ?? p.picture };
    const mapped = mapColours(p, colour);
    return mapped.kind === 'gradient' && 'swatch' in mapped.ramp
      ? { ...mapped, ramp: { swatch: swatchMap.get(mapped.ramp.swatch) ?? mapped.ramp.swatch } }
      : mapped;
  };
  const nodes = structuredClone(clip.nodes) as Record<string, DesignNode>;
  const stories = structuredClone(clip.stories) as Record<string, Story>;
  const textLooks = structuredClone(clip.textLooks ?? []) as TextLook[];
  mapPaints({ nodes, stories, textLooks }, paint);
  const lookMap = adoptLooks(d, textLooks, newId);
  for (const face of clip.faces ?? []) adoptFace(d, face);
  for (const [id, node] of Object.entries(nodes)) {
    const next = { ...node, id: ids.get(id)! } as DesignDraft['nodes'][string];
    if ('children' in next) next.children = next.children.map((c) => ids.get(c)!);
    if ('story' in next) next.story = storyIds.get(next.story)!;
    if (clip.roots.includes(id))
      next.transform = [...multiply(into?.back ?? IDENTITY, multiply(map, next.transform as Matrix))];
    d.nodes[next.id] = next;
  }
  for (const [id, story] of Object.entries(stories)) {
    const own = storyIds.get(id)!;
    d.stories[own] = {
      ...withLooks(
        withFrames(story, (f) => ids.get(f) ?? null),
        lookMap,
      ),
      id: own,
    } as DesignDraft['stories'][string];
  }
  const roots = clip.roots.map((r) => ids.get(r)!);
  const holder = into ? d.nodes[into.parent] : null;
  (holder && 'children' in holder ? holder.children : page.children).push(...roots);
  return roots;
}

function adoptInk(d: DesignDraft, ink: Ink, newId: () => string): string {
  const same = d.inks.find((i) => i.name.toLowerCase() === ink.name.toLowerCase());
  if (same) return same.id;
  const id = newId();
  d.inks.push({ ...ink, id, lab: [...ink.lab], alternate: [...ink.alternate] });
  return id;
}

/** The design's own picture of the same file and name, or a new one. Answers its id. */
export function adoptPicture(d: DesignDraft, picture: Picture, newId: () => string): string {
  const same = d.pictures?.find((p) => p.file === picture.file && p.name === picture.name);
  if (same) return same.id;
  const id = newId();
  (d.pictures ??= []).push({ ...picture, id });
  return id;
}

function adoptSwatch(d: DesignDraft, swatch: Swatch, newId: () => string): string {
  const content = (s: Swatch) => JSON.stringify(s.kind === 'colour' ? s.colour : [s.stops, s.mixing]);
  const same = d.swatches.find(
    (s) => s.kind === swatch.kind && content(s as Swatch) === content(swatch) && s.name === swatch.name,
  );
  if (same) return same.id;
  const id = newId();
  d.swatches.push({ ...swatch, id } as DesignDraft['swatches'][number]);
  return id;
}
