import { regionsIn, type RegionsNow } from '@/core/derive/regions';
import { hasRegions, makeRegions, paintAreas } from '@/core/edit/regions';
import type { Recipe } from '@/core/edit/history';
import { pathContains } from '@/core/geometry/contains';
import { apply, invert, type Matrix, type Point } from '@/core/geometry/matrix';
import { transformPath } from '@/core/geometry/path';
import { BLACK, colourPaint } from '@/core/model/defaults';
import type { Colour, Design, DesignNode, NodeOf } from '@/core/model/schema';
import { ancestry, isLocked, pageMatrix } from '@/core/model/tree';
import { count } from '../session/commandDef';
import { colourName } from '../session/naming';
import type { Session } from '../session/session';
import type { PointerAt, Tool, ToolContext } from './tool';

/** The lines whose areas are looked at: a group that has coloured ones, or objects that would become one. */
interface Scope {
  /** The group; null where there is none yet. */
  readonly group: string | null;
  readonly ids: readonly string[];
  readonly now: RegionsNow;
  readonly toPage: Matrix;
}

/** So many objects of a page are looked at where none is chosen. */
const MOST_LOOSE = 200;
const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** Is it made of lines that may enclose something? */
const isLined = (d: Design, n: DesignNode): boolean =>
  n.kind === 'shape' || n.kind === 'path' || n.kind === 'combination'
    ? !('fills' in n && n.fills.some((f) => f.kind === 'picture'))
    : (n.kind === 'group' || n.kind === 'repeat') && n.children.some((c) => isLined(d, d.nodes[c]));

/**
 * The coloured group that is chosen or worked in, the only one of the page, or what is chosen, or all free lines of the
 * page.
 */
function regionScope(s: Session): Scope | null {
  const { design, page } = s;
  const { selection } = s.state;
  const chosen = selection.flatMap((id) => (design.nodes[id] ? ancestry(design, page, id) : []));
  const all = page.children.filter((id) => hasRegions(design.nodes[id]) && !isLocked(design, page, id));
  const group =
    chosen.find((id) => hasRegions(design.nodes[id])) ?? (selection.length || all.length !== 1 ? null : all[0]);
  if (group) {
    const node = design.nodes[group] as NodeOf<'group'>;
    return {
      group,
      ids: [group],
      now: regionsIn(design, node, s.engines.fonts),
      toPage: pageMatrix(design, page, group),
    };
  }
  const free = (selection.length ? selection : page.children).filter(
    (id) =>
      page.children.includes(id) &&
      !design.nodes[id].hidden &&
      !isLocked(design, page, id) &&
      isLined(design, design.nodes[id]),
  );
  // The lines of a whole crowd are chosen first: to find what they enclose takes its time.
  if (!selection.length && free.length > MOST_LOOSE) return null;
  return free.length ? { group: null, ids: free, now: looseAreas(s, free), toPage: IDENTITY } : null;
}

let loose: { readonly key: string; readonly design: Design; readonly node: NodeOf<'group'> } | null = null;
/** The areas of objects that are no group yet. */
function looseAreas(s: Session, ids: readonly string[]): RegionsNow {
  const key = ids.join();
  if (loose?.key !== key || loose.design !== s.design)
    loose = {
      key,
      design: s.design,
      node: {
        kind: 'group',
        id: 'none',
        name: '',
        transform: IDENTITY,
        hidden: false,
        locked: false,
        children: ids,
        regions: { areas: [] },
      },
    };
  return regionsIn(s.design, loose.node, s.engines.fonts);
}

/** The number of the area at a place of the page; −1 for none. */
function areaAt({ now, toPage }: Scope, p: Point): number {
  const back = invert(toPage);
  if (!back) return -1;
  const own = apply(back, p);
  return now.faces.findIndex((f) => pathContains(f.polygon, 'evenOdd', own));
}

/** What areas are coloured with: the colour that was given last. */
function regionColour(s: Session): Colour {
  const [last] = s.state.recent;
  if (last) return last;
  const first = s.design.swatches.find((w, i) => w.kind === 'colour' && i > 0);
  return first ? { swatch: first.id, tint: 1 } : s.palette.screen ? { rgb: [0, 0, 0] } : BLACK;
}

function light(c: ToolContext, scope: Scope | null, face: number): void {
  const { extras } = c;
  extras.lit = scope && face >= 0 ? transformPath(scope.now.faces[face].path, scope.toPage) : null;
  extras.bridges = scope
    ? scope.now.bridges.map(([a, b]) => [apply(scope.toPage, a), apply(scope.toPage, b)] as const)
    : [];
  c.refresh();
}

export const regionsTool: Tool = {
  hover(at, c) {
    const scope = regionScope(c.session);
    light(c, scope, scope ? areaAt(scope, at.page) : -1);
  },

  press(start, c) {
    const { session: s } = c;
    const scope = regionScope(s);
    const first = scope ? areaAt(scope, start.page) : -1;
    if (!scope || first < 0) {
      s.say(
        scope
          ? 'No lines enclose this place. Draw one more, or let gaps count as closed: Regions, in Details.'
          : 'Draw lines that cross, or on a full page choose some: each area between them can then be coloured.',
        'warn',
      );
      return null;
    }
    const clear = start.alt;
    const which = new Set<number>([first]);
    const colour = regionColour(s);
    const id = s.newId();
    // As it was before anything is shown.
    const { page } = s;
    const recipe: Recipe = (d) => {
      const group = scope.group ?? makeRegions(d, page, scope.ids, () => id);
      if (group) paintAreas(d, group, which, clear ? null : colourPaint(colour), s.engines.fonts);
    };
    s.preview(recipe);
    const at = (p: PointerAt) => {
      const face = areaAt(scope, p.page);
      light(c, scope, face);
      if (face < 0 || which.has(face)) return;
      which.add(face);
      s.preview(recipe);
    };
    return {
      move: at,
      release(p) {
        at(p);
        const name = colourName(s.design, colour);
        if (s.commit(clear ? 'Clear areas' : `Colour areas: ${name}`, recipe, { select: [scope.group ?? id] }))
          s.say(clear ? `Cleared ${count(which.size, 'area')}.` : `${count(which.size, 'area')}: ${name}. Alt clears.`);
      },
      cancel: () => s.preview(null),
    };
  },

  cursor: () => 'crosshair',
};
