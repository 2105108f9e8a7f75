import { aimedNodes, isFurtherAim } from '@/core/edit/aims';
import { areaOf } from '@/core/derive/area';
import { isText } from '@/core/derive/layout';
import { distanceToPath, pathContains } from '@/core/geometry/contains';
import { apply, invert, meanScale } from '@/core/geometry/matrix';
import { contains, isEmpty, overlaps, type Rect } from '@/core/geometry/rect';
import { ancestry, isHolder, isLocked, nodesOf, pageMatrix } from '@/core/model/tree';
import { hitsAt, nodesIn, type Hit } from '@/core/scene/hit';
import type { Session } from '../session/session';
import { NEAR_PX, type PointerAt } from './tool';

/** From the page down to what is being worked in, itself included; empty where that is the page. */
export function enteredLine(s: Session): readonly string[] {
  return s.state.entered ? ancestry(s.design, s.page, s.state.entered) : [];
}

/**
 * The combination whose operands are picked by their own areas, since they are not seen: the entered one, or one around
 * it.
 */
function openCombination(s: Session): string | null {
  return enteredLine(s).findLast((id) => s.design.nodes[id].kind === 'combination') ?? null;
}

/**
 * What a click on a hit means: the object itself inside an entered group, else the whole group on the page. Null for
 * what is locked, and for what lies outside of a group that is isolated.
 */
function selectable(s: Session, hit: Hit): string | null {
  const { design, page } = s;
  if (isLocked(design, page, hit.node)) return null;
  const line = ancestry(design, page, hit.node);
  const entered = enteredLine(s);
  let depth = -1;
  while (depth + 1 < line.length && line[depth + 1] === entered[depth + 1]) depth++;
  if (s.state.isolated && depth < entered.length - 1) return null;
  // A layer is a place to work in, not a thing to take hold of.
  const next = line[depth + 1] ? design.nodes[line[depth + 1]] : null;
  if (next?.kind === 'group' && next.layer && line.length > depth + 2) return line[depth + 2];
  return line[depth + 1] ?? null;
}

interface Picked {
  readonly id: string;
  readonly hit: Hit;
}

/** What under the pointer can be chosen, front first, found as it is asked for. */
export function* picks(s: Session, at: Pick<PointerAt, 'page'>): Generator<Picked> {
  const slack = NEAR_PX / s.state.camera.scale;
  const seen = new Set<string>();
  const open = openCombination(s);
  if (open)
    for (const id of operandsAt(s, at, slack)) {
      seen.add(id);
      yield { id, hit: { node: id, part: 'fill' } };
    }
  for (const hit of hitsAt(s.scene(), at.page, slack)) {
    // An open combination is picked by its operands only.
    if (open && hit.node === open) continue;
    const id = selectable(s, hit);
    if (!id || seen.has(id)) continue;
    seen.add(id);
    yield { id, hit };
  }
}

export function pick(s: Session, at: PointerAt): Picked | null {
  return picks(s, at).next().value ?? null;
}

/** The children of what is entered whose area, or edge, lies under the pointer. */
function operandsAt(s: Session, at: Pick<PointerAt, 'page'>, slack: number): string[] {
  const { design, page } = s;
  const node = s.state.entered ? design.nodes[s.state.entered] : null;
  if (!node || !isHolder(node)) return [];
  return [...node.children].reverse().filter((id) => {
    if (design.nodes[id].hidden || isLocked(design, page, id)) return false;
    const m = pageMatrix(design, page, id);
    const back = invert(m);
    if (!back) return false;
    const p = apply(back, at.page);
    const { path, rule } = areaOf(design, id, s.engines.fonts, true).region;
    return pathContains(path, rule, p) || distanceToPath(path, p) <= slack / meanScale(m);
  });
}

/** What a marquee chooses: all that touches it, or with `enclosed` all that lies inside. */
export function pickIn(s: Session, box: Rect, enclosed: boolean): string[] {
  const open = openCombination(s);
  const entered = s.state.entered ? s.design.nodes[s.state.entered] : null;
  if (open && entered && isHolder(entered))
    return entered.children.filter((id) => {
      const b = s.boxOf([id]);
      return (
        !s.design.nodes[id].hidden &&
        !isLocked(s.design, s.page, id) &&
        !isEmpty(b) &&
        (enclosed ? contains(box, b) : overlaps(box, b))
      );
    });
  const touched = nodesIn(s.scene(), box, false);
  const ids = [...new Set(touched.flatMap((node) => selectable(s, { node, part: 'fill' }) ?? []))];
  // A group lies inside only if all of it does.
  return enclosed ? ids.filter((id) => contains(box, s.boxOf([id]))) : ids;
}

/**
 * Aims at what the selection can take: letters for a text, else what was aimed at, if it fits. A shadow is aimed at
 * only for as long as its object is chosen.
 */
export function aimFor(s: Session, ids: readonly string[]): void {
  const nodes = nodesOf(s.design, ids);
  const allText = nodes.length > 0 && nodes.every(isText);
  if (s.state.aim === 'shadow' || (s.state.aim === 'ground' && nodes.length))
    s.set({ aim: allText ? 'letters' : 'fill' });
  if (s.state.aim === 'ground') return;
  if (isFurtherAim(s.state.aim)) {
    if (aimedNodes(s.design, ids, s.state.aim).length) return;
    s.set({ aim: allText ? 'letters' : 'fill' });
  }
  const textAim = s.state.aim !== 'fill' && s.state.aim !== 'outline';
  if (allText && !textAim) s.set({ aim: s.state.aim === 'outline' ? 'letterOutline' : 'letters' });
  if (!allText && textAim) s.set({ aim: s.state.aim === 'letterOutline' ? 'outline' : 'fill' });
}

export function choose(s: Session, selection: readonly string[]): void {
  s.select(selection, { stop: null });
  aimFor(s, selection);
}
