import type { DesignDraft } from '../edit/history';
import { leaveStory } from '../edit/thread';
import type { Colour, Design, NodeOf, Page } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { pageById, pageOf, withDescendants, type NodeId } from '../model/tree';
import { readyById } from './catalogue';
import { ReadyKit } from './kit';
import type { Ready, Values } from './types';

export interface Making {
  readonly newId: () => string;
  /** How a colour of the design looks, Lab. */
  readonly lab: (c: Colour) => readonly [number, number, number];
}

/** What its dials say at first, with the values that are known. */
export const valuesFor = (r: Ready, known: Values = {}): Values =>
  Object.fromEntries(
    r.dials.map((d) => [d.id, Math.min(d.max, Math.max(d.min, Math.round(known[d.id] ?? d.initial)))]),
  );

/** Draws a ready-made for a design. Answers its parts; the last of the nodes is the group that holds them. */
export function drawReady(d: Design, ready: Ready, values: Values, { newId, lab }: Making): ReadyKit {
  const kit = new ReadyKit(d, lab, newId);
  const set = valuesFor(ready, values);
  const children = ready.make(kit, set);
  const id = kit.group(ready.name, children);
  const at = kit.nodes.findIndex((n) => n.id === id);
  kit.nodes[at] = { ...(kit.nodes[at] as NodeOf<'group'>), ready: { id: ready.id, values: set } };
  return kit;
}

function add(d: DesignDraft, kit: ReadyKit): NodeId {
  for (const s of kit.stories) d.stories[s.id] = s as DesignDraft['stories'][string];
  for (const n of kit.nodes) d.nodes[n.id] = n as DesignDraft['nodes'][string];
  return kit.nodes[kit.nodes.length - 1].id;
}

/** The design as if all of it had the format of one sheet. */
const seenOn = (d: Design, sheet: Page | undefined): Design => (sheet ? { ...d, setup: setupOn(d, sheet) } : d);

/** Puts a ready-made on a sheet, above all else there. Answers the id of its group. */
export function putReady(d: DesignDraft, design: Design, sheet: string, ready: Ready, making: Making): NodeId {
  const id = add(d, drawReady(seenOn(design, pageById(design, sheet)), ready, {}, making));
  pageById(d, sheet)!.children.push(id);
  return id;
}

/** Draws a ready-made anew with other values, in its place; what was changed in it by hand goes. */
export function remakeReady(d: DesignDraft, design: Design, id: NodeId, values: Values, making: Making): void {
  const node = design.nodes[id];
  const ready = node?.kind === 'group' && node.ready ? readyById(node.ready.id) : undefined;
  if (!ready || node.kind !== 'group') return;
  const kit = drawReady(seenOn(design, pageOf(design, id)), ready, { ...node.ready!.values, ...values }, making);
  const made = kit.nodes.pop() as NodeOf<'group'>;
  for (const old of withDescendants(design, id).slice(1)) {
    const gone = design.nodes[old];
    if ('story' in gone) leaveStory(d, gone.story, old);
    delete d.nodes[old];
  }
  for (const s of kit.stories) d.stories[s.id] = s as DesignDraft['stories'][string];
  for (const n of kit.nodes) d.nodes[n.id] = n as DesignDraft['nodes'][string];
  const group = d.nodes[id] as Extract<DesignDraft['nodes'][string], { kind: 'group' }>;
  group.children = [...made.children];
  group.ready = { id: ready.id, values: { ...made.ready!.values } };
}
