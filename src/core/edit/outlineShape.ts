import { bandOf } from '../derive/inked';
import { layLine } from '../derive/lines';
import { areaOf } from '../derive/area';
import { contoursOf } from '../derive/contours';
import type { Region } from '../geometry/boolean/region';
import { simplified } from '../geometry/boolean/combine';
import { IDENTITY } from '../geometry/matrix';
import { taperedLine } from '../geometry/taper';
import { finishOf } from '../model/finish';
import type { Design, DesignNode, NodeOf, Outline, Page, Paint } from '../model/schema';
import { topmost, type NodeId } from '../model/tree';
import { outlinePath } from '../shapes/outline';
import type { FontBook } from '../text/fonts';
import { before, type DesignDraft } from './history';
import { replaceNode, wrapNodes } from './pile';

type Lined = NodeOf<'shape'> | NodeOf<'path'> | NodeOf<'combination'>;

/** Has an object a line that can become a shape? Texts have theirs once they are shapes themselves. */
export const hasOutline = (n: DesignNode): n is Lined =>
  (n.kind === 'shape' || n.kind === 'path' || (n.kind === 'combination' && n.op !== 'divide')) &&
  n.outlines.some((o) => o.paint.kind !== 'none' && o.width > 0);

/**
 * Makes the outlines of objects areas of their own, filled with what they were painted with. An object that is only
 * lines becomes them; another one lies in a group with them. `kept` counts lines that must stay
 * lines: those whose gradient follows them, and those that no engine could make an area of.
 */
export function outlinesToShapes(
  d: DesignDraft,
  page: Page,
  ids: readonly NodeId[],
  newId: () => string,
  fonts: FontBook,
): { readonly ids: readonly NodeId[]; readonly made: number; readonly kept: number } {
  const was = before(d);
  const results: NodeId[] = [];
  let [made, kept] = [0, 0];
  for (const id of topmost(was, page, ids)) {
    const node = was.nodes[id];
    if (!hasOutline(node)) {
      results.push(id);
      continue;
    }
    const stay: Outline[] = [];
    const below: Draft[] = [];
    const over: Draft[] = [];
    for (const [i, line] of node.outlines.entries()) {
      if (line.paint.kind === 'none' || !(line.width > 0)) continue;
      const areas = areasOf(was, node, line, fonts);
      if (!areas) {
        stay.push(line);
        kept++;
        continue;
      }
      made++;
      for (const { region, paint } of areas)
        (line.behind ? below : over).push(
          area(newId(), i === 0 && node.outlines.length === 1 ? 'Outline' : `Outline ${i + 1}`, region, paint),
        );
    }
    const lines = [...below, ...over];
    if (!lines.length) {
      results.push(id);
      continue;
    }
    const { name, transform, hidden, locked } = node;
    const base = { name, hidden, locked, ...finishOf(node) };
    const filled = stay.length > 0 || node.fills.some((p) => p.kind !== 'none');
    if (!filled && lines.length === 1) {
      replaceNode(d, page, id, [{ ...lines[0], ...base, id, transform }]);
      results.push(id);
      continue;
    }
    for (const m of lines) {
      m.transform = [...transform];
      d.nodes[m.id] = m;
    }
    const names = (list: readonly Draft[]) => list.map((m) => m.id);
    if (!filled) {
      const group = newId();
      replaceNode(d, page, id, [{ ...base, id: group, kind: 'group', transform: IDENTITY, children: names(lines) }]);
      results.push(group);
      continue;
    }
    const self = d.nodes[id] as Extract<Draft, { outlines: unknown }>;
    self.outlines = stay as typeof self.outlines;
    // What it has as a whole is the group's now.
    for (const key of Object.keys(finishOf(node)) as (keyof typeof self)[]) delete self[key];
    const group = wrapNodes(d, page, [id], newId, (held) => ({
      ...base,
      id: held,
      kind: 'group',
      transform: IDENTITY,
      children: [...names(below), id, ...names(over)],
    }));
    if (group) results.push(group);
  }
  return { ids: results, made, kept };
}

type Draft = DesignDraft['nodes'][string];

const area = (id: string, name: string, region: Region, paint: Paint): Draft => ({
  id,
  name,
  kind: 'path',
  transform: [1, 0, 0, 1, 0, 0],
  hidden: false,
  locked: false,
  path: [...region.path],
  fillRule: region.rule,
  fills: [paint as Extract<Draft, { fills: unknown }>['fills'][number]],
  outlines: [],
});

/** What a line comes to as areas, bottom to top; null where it cannot. */
function areasOf(
  d: Design,
  node: Lined,
  line: Outline,
  fonts: FontBook,
): { readonly region: Region; readonly paint: Paint }[] | null {
  if (line.paint.kind === 'gradient' && line.paint.strokeMapping) return null;
  if (node.kind === 'path' && node.widths) {
    const made = simplified({ path: taperedLine(contoursOf(node), line.width), rule: 'nonZero' });
    return made.ok ? [{ region: made.region, paint: line.paint }] : null;
  }
  const edge = node.kind === 'combination' ? areaOf(d, node.id, fonts).region : outlinePath(node);
  const out: { region: Region; paint: Paint }[] = [];
  for (const laid of layLine({ path: edge.path, toPage: IDENTITY, rule: edge.rule, matrix: IDENTITY }, line)) {
    const region = bandOf(laid);
    if (!region) return null;
    if (region.path.length) out.push({ region, paint: laid.paint });
  }
  return out;
}
