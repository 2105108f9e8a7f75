import { areaOf, type Area } from '../derive/area';
import { regionsIn, type RegionsNow } from '../derive/regions';
import { designOn, fieldStoriesOf } from '../derive/fields';
import { isText, layoutOf } from '../derive/layout';
import { pushersOf, pushes } from '../derive/pushed';
import { IDENTITY, meanScale, multiply, translation, type Matrix } from '../geometry/matrix';
import { rectPath, transformPath } from '../geometry/path';
import { overlaps } from '../geometry/rect';
import { copyMatrices } from '../model/copies';
import type { Design, DesignNode, Effect, NodeOf, Page } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { ancestry, mastersOf, pageMatrix, spreadOf, withDescendants, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import type { Layout } from '../text/layout';
import { addFindings, findInArea, findingsOf, nothingFound, sameFindings, type Found } from './findings';
import { scaledEffect } from '../model/effects';
import { groundParts } from './ground';
import { leavesOf, regionLeaves, type DrawnNode, type Made } from './leaves';
import { memory, remembered } from './memory';
import {
  bleedRect,
  makeGroup,
  withParts,
  type Clip,
  type Group,
  type Leaf,
  type Mask,
  type Part,
  type Scene,
} from './scene';

interface Entry extends Made {
  readonly area: Area | undefined;
  readonly layout: Layout | undefined;
}

/** What goes on while the pile is walked: parts are put in a list, findings gathered. */
interface Into {
  readonly parts: Part[];
  readonly found: Found;
}
const fresh = (): Into => ({ parts: [], found: nothingFound() });

/** What of a neighbour is seen at a fold, and where it lies. */
interface Fold {
  readonly clip: Clip;
  readonly place: Matrix;
}

/**
 * Makes scenes. Leaves are remembered by node, place and the layout of their words, groups by what they came to: nodes
 * never change in place, so an edit costs what it touched and what did not change comes back as the same object. Paints
 * are not looked into here.
 */
export class SceneBuilder {
  private readonly entries = memory<Entry>();
  private readonly matrices = memory<readonly Matrix[]>();
  private readonly groups = memory<Group>();
  private readonly copies = memory<Group>();
  private readonly clips = memory<{ readonly area: Area; readonly clip: Clip }>();
  private readonly masks = memory<Mask>();
  /** By master, and of what pages have taken over by page. */
  private readonly masters = new WeakMap<Page, Map<string, Group>>();
  private readonly places = new WeakMap<Page, Matrix>();
  private readonly facing = new WeakMap<Page, Group>();
  /**
   * By set-up, side and the neighbour's width: what of it is seen, and where it lies. The same matrices: parts are
   * remembered by them.
   */
  private readonly folds = new WeakMap<Design['setup'], Map<string, Fold>>();
  private readonly scenes = new WeakMap<Page, Scene>();
  /** The design that a scene was last made from, and the faces that were there. */
  private readonly madeOf = new WeakMap<Scene, { readonly design: Design; readonly epoch: number }>();

  constructor(readonly fonts: FontBook) {}

  build(design: Design, page: Page): Scene {
    const last = this.scenes.get(page);
    const { epoch } = this.fonts;
    // Plates, tiles and checks ask again and again for the scene of one design.
    const made = last && this.madeOf.get(last);
    if (made?.design === design && made.epoch === epoch) return last!;
    const into = fresh();
    into.parts.push(...groundParts(design, page));
    for (const master of mastersOf(design, page)) {
      for (const group of this.master(design, master, page)) {
        addFindings(into.found, group.findings);
        if (group.content.length) into.parts.push(group);
      }
    }
    const across = this.acrossTheFold(design, page);
    if (across) into.parts.push(across);
    for (const id of page.children) this.put(design, id, IDENTITY, into);
    const { width, height, bleed, round, fold } = setupOn(design, page);
    const scene = { width, height, bleed, round, ...(fold && { fold }), root: groupOf(page.id, into) };
    if (
      last &&
      last.width === width &&
      last.height === height &&
      last.bleed === bleed &&
      last.fold === fold &&
      last.round === round &&
      sameGroup(last.root, scene.root)
    ) {
      this.madeOf.set(last, { design, epoch });
      return last;
    }
    this.scenes.set(page, scene);
    this.madeOf.set(scene, { design, epoch });
    return scene;
  }

  /**
   * What a master puts on its pages, bottom to top: the same group on all of them, but where something in it is taken
   * over here, and for what has fields, which say something else on each.
   */
  private master(design: Design, master: Page, page: Page): readonly Group[] {
    const { takenOver } = page;
    const shown = takenOver ? master.children.filter((id) => !Object.hasOwn(takenOver, id)) : master.children;
    const shared = shown.length === master.children.length ? master : page;
    return stretches(design, shown).map(({ ids, fields }, i) => {
      const into = fresh();
      const seen = fields ? designOn(design, page) : design;
      const place = fields ? this.placeOn(page) : IDENTITY;
      for (const id of ids) this.put(seen, id, place, into);
      const made = groupOf(master.id, into, { fixed: true });
      const keeper = fields ? page : shared;
      const key = `${master.id} ${i}`;
      const known = this.masters.get(keeper) ?? new Map<string, Group>();
      const last = known.get(key);
      if (last && sameGroup(last, made)) return last;
      this.masters.set(keeper, known.set(key, made));
      return made;
    });
  }

  /** A place of its own for each page, so that what is remembered of an object on one is not asked of another. */
  private placeOn(page: Page): Matrix {
    let place = this.places.get(page);
    if (!place) this.places.set(page, (place = [1, 0, 0, 1, 0, 0]));
    return place;
  }

  private fold(setup: Design['setup'], side: 'left' | 'right', other: number): Fold {
    const made = this.folds.get(setup) ?? new Map<string, Fold>();
    this.folds.set(setup, made);
    const key = `${side} ${other}`;
    let fold = made.get(key);
    if (!fold) {
      const clip: Clip = { path: rectPath(bleedRect(setup)), rule: 'nonZero' };
      made.set(key, (fold = { clip, place: translation(side === 'left' ? setup.width : -other, 0) }));
    }
    return fold;
  }

  /**
   * What reaches over from the page that faces this one, below all that is its own, cut at its bleed; null for nothing.
   */
  private acrossTheFold(design: Design, page: Page): Group | null {
    const spread = spreadOf(design, page);
    if (!spread?.other) return null;
    const setup = setupOn(design, page);
    const { clip, place } = this.fold(setup, spread.side, setupOn(design, spread.other).width);
    const into = fresh();
    for (const id of spread.other.children) this.put(design, id, place, into);
    const sheet = bleedRect(setup);
    const reaching = into.parts.filter((p) => overlaps(p.paintBounds, sheet));
    if (!reaching.length) return null;
    const made = groupOf(spread.other.id, { parts: reaching, found: nothingFound() }, { fixed: true, clips: [clip] });
    const last = this.facing.get(page);
    if (last && sameGroup(last, made)) return last;
    this.facing.set(page, made);
    return made;
  }

  /**
   * The scene of a design in which only `changed` nodes differ from the one that `base` was built from, by putting
   * their parts in place: for showing what moves. Null where that is not enough (an object came or went, a text flows
   * anew, it is repeated): then build it whole.
   */
  patch(base: Scene, design: Design, page: Page, changed: readonly NodeId[]): Scene | null {
    // Words run round what moves.
    const was = this.madeOf.get(base)?.design ?? design;
    if (pushersOf(was).length || changed.some((id) => pushes(design.nodes[id]))) return null;
    const ranges = this.rangesOf(base);
    const content = base.root.content.slice();
    const done = new Set<NodeId>();
    const [gone, come]: Part[][] = [[], []];
    for (const id of changed) {
      const line = ancestry(design, page, id).map((x) => design.nodes[x]);
      if (line.some((n) => n.kind === 'repeat')) return null;
      const node = line.find((n) => n.kind === 'combination' || needsGroup(design, n)) ?? design.nodes[id];
      if (node.hidden || 'story' in node) return null;
      if (
        ((node.kind === 'group' || node.kind === 'repeat') && !needsGroup(design, node)) ||
        node.kind === 'unknown' ||
        done.has(node.id)
      )
        continue;
      done.add(node.id);
      const range = ranges.get(node.id);
      if (!range) return null;
      const parts = this.anew(design, page, node);
      if (parts.length !== range.count) return null;
      for (let i = 0; i < parts.length; i++) {
        gone.push(content[range.start + i]);
        come.push(parts[i]);
        content[range.start + i] = parts[i];
      }
    }
    return { ...base, root: withParts(base.root, content, gone, come) };
  }

  /** A node's parts, not remembered: the next moment they are others. */
  private anew(design: Design, page: Page, node: DrawnNode | NodeOf<'group'> | NodeOf<'repeat'>): readonly Part[] {
    const matrix = pageMatrix(design, page, node.id);
    if (needsGroup(design, node) || node.kind === 'group' || node.kind === 'repeat') {
      const into = fresh();
      const line = ancestry(design, page, node.id);
      this.put(design, node.id, line.length > 1 ? pageMatrix(design, page, line[line.length - 2]) : IDENTITY, into);
      return into.parts;
    }
    const area = node.kind === 'combination' ? areaOf(design, node.id, this.fonts, true) : undefined;
    return leavesOf(design, node, matrix, area, this.fonts).leaves;
  }

  private readonly ranges = new WeakMap<Scene, Map<NodeId, { start: number; count: number }>>();
  /** Where each node's parts stand on a page; those of what is not repeated always stand together. */
  private rangesOf(scene: Scene): Map<NodeId, { start: number; count: number }> {
    let ranges = this.ranges.get(scene);
    if (ranges) return ranges;
    ranges = new Map();
    for (const [i, { node }] of scene.root.content.entries()) {
      const known = ranges.get(node);
      if (known) known.count++;
      else ranges.set(node, { start: i, count: 1 });
    }
    this.ranges.set(scene, ranges);
    return ranges;
  }

  /** Puts a node's parts; `parent` maps the space of what holds it to the page. */
  private put(design: Design, id: NodeId, parent: Matrix, into: Into): void {
    const node = design.nodes[id];
    if (node.hidden || node.kind === 'unknown') return;
    if (!needsGroup(design, node)) return this.putContent(design, node, parent, into);
    const inner = fresh();
    const cuts = this.cuts(design, node, parent, inner.found);
    this.putContent(design, node, parent, inner);
    const group = this.sameOr(
      this.groups,
      node,
      parent,
      groupOf(id, inner, {
        ...cuts,
        opacity: node.opacity ?? 1,
        blend: node.blend ?? null,
        effects: effectsOf(node, parent),
      }),
    );
    addFindings(into.found, group.findings);
    if (group.content.length) into.parts.push(group);
  }

  private readonly regions = memory<{ readonly now: RegionsNow; readonly leaves: readonly Leaf[] }>();
  /** The coloured areas of a group, below its lines. */
  private areas(design: Design, node: NodeOf<'group'>, matrix: Matrix): readonly Leaf[] {
    const now = regionsIn(design, node, this.fonts);
    return remembered(
      this.regions,
      node,
      matrix,
      (known) => known.now === now,
      () => ({ now, leaves: regionLeaves(node, now, matrix) }),
    ).leaves;
  }

  private putContent(design: Design, node: Exclude<DesignNode, { kind: 'unknown' }>, parent: Matrix, into: Into): void {
    if (node.kind === 'group') {
      const [matrix] = this.holderMatrices(node, parent);
      if (node.regions?.areas.length) into.parts.push(...this.areas(design, node, matrix));
      for (const child of node.children) if (!design.nodes[child].maskMode) this.put(design, child, matrix, into);
      return;
    }
    if (node.kind === 'repeat') {
      for (const [copy, matrix] of this.holderMatrices(node, parent).entries()) {
        const inner = fresh();
        for (const child of node.children) this.put(design, child, matrix, inner);
        const group = this.sameOr(this.copies, node, matrix, groupOf(node.id, inner, { copy }));
        addFindings(into.found, group.findings);
        if (group.content.length) into.parts.push(group);
      }
      return;
    }
    const entry = this.entry(design, node, parent);
    for (const leaf of entry.leaves) into.parts.push(leaf);
    for (const face of entry.missing) into.found.missing.add(face);
    if (entry.overset) into.found.overset.set(node.id, entry.overset);
    if (entry.area?.unsure) into.found.unsure.add(node.id);
    if (node.kind === 'combination')
      for (const child of node.children) findInArea(design, child, this.fonts, into.found);
  }

  /** The group that was made last time, if this one came to the same. */
  private sameOr(groups: ReturnType<typeof memory<Group>>, node: DesignNode, place: Matrix, made: Group): Group {
    return remembered(
      groups,
      node,
      place,
      (known) => sameGroup(known, made),
      () => made,
    );
  }

  /** Where the children of a group, or the copies of a repeat, lie on the page. */
  private holderMatrices(node: NodeOf<'group'> | NodeOf<'repeat'>, parent: Matrix): readonly Matrix[] {
    return remembered(
      this.matrices,
      node,
      parent,
      () => true,
      () => {
        const own = multiply(parent, node.transform);
        return node.kind === 'group' ? [own] : copyMatrices(node.arrangement).map((m) => multiply(own, m));
      },
    );
  }

  private cuts(design: Design, node: DesignNode, parent: Matrix, found: Found): Pick<Group, 'clips' | 'masks'> {
    const clips: Clip[] = [];
    const masks: Mask[] = [];
    if (node.kind !== 'group') return { clips, masks };
    const [matrix] = this.holderMatrices(node, parent);
    for (const id of node.children) {
      const child = design.nodes[id];
      if (!child.maskMode || child.hidden) continue;
      if (child.maskMode === 'outline') {
        clips.push(this.clip(design, child, matrix));
        findInArea(design, id, this.fonts, found);
      } else {
        const mask = this.mask(design, child, matrix);
        masks.push(mask);
        addFindings(found, mask.root.findings);
      }
    }
    return { clips, masks };
  }

  private clip(design: Design, child: DesignNode, matrix: Matrix): Clip {
    const area = areaOf(design, child.id, this.fonts);
    return remembered(
      this.clips,
      child,
      matrix,
      (known) => known.area === area,
      () => ({
        area,
        clip: { path: transformPath(area.region.path, multiply(matrix, child.transform)), rule: area.region.rule },
      }),
    ).clip;
  }

  private mask(design: Design, child: DesignNode, matrix: Matrix): Mask {
    const into = fresh();
    this.put(design, child.id, matrix, into);
    const root = groupOf(child.id, into);
    return remembered(
      this.masks,
      child,
      matrix,
      (known) => sameGroup(known.root, root),
      () => ({ root, light: child.maskMode === 'light' }),
    );
  }

  private entry(design: Design, node: DrawnNode, parent: Matrix): Entry {
    const layout = isText(node) ? layoutOf(design, node, this.fonts) : undefined;
    const area = node.kind === 'combination' ? areaOf(design, node.id, this.fonts) : undefined;
    return remembered(
      this.entries,
      node,
      parent,
      (e) => e.area === area && e.layout === layout,
      () => ({
        area,
        layout,
        ...leavesOf(design, node, multiply(parent, node.transform), area, this.fonts),
      }),
    );
  }
}

/** Objects of a master that follow each other, those with fields apart from those without. */
function stretches(d: Design, ids: readonly NodeId[]): readonly { readonly ids: NodeId[]; readonly fields: boolean }[] {
  const all = new Set(fieldStoriesOf(d));
  if (!all.size) return [{ ids: [...ids], fields: false }];
  const out: { readonly ids: NodeId[]; readonly fields: boolean }[] = [];
  for (const id of ids) {
    const fields = withDescendants(d, id).some((x) => {
      const node = d.nodes[x];
      return 'story' in node && all.has(node.story);
    });
    const last = out.at(-1);
    if (last?.fields === fields) last.ids.push(id);
    else out.push({ ids: [id], fields });
  }
  return out;
}

/** Is a node more than what it holds, one after the other? */
function needsGroup(d: Design, node: DesignNode): boolean {
  return (
    (node.opacity ?? 1) < 1 ||
    node.blend !== undefined ||
    node.effects !== undefined ||
    (node.kind === 'group' &&
      (node.regions !== undefined || node.children.some((c) => d.nodes[c].maskMode !== undefined)))
  );
}

/** A node's effects in points of the page: they grow with it, as its lines do. */
function effectsOf({ effects, transform }: DesignNode, parent: Matrix): readonly Effect[] {
  const by = effects?.length ? meanScale(multiply(parent, transform)) : 1;
  return (effects ?? []).map((e) => scaledEffect(e, by));
}

function groupOf(node: NodeId, { parts, found }: Into, rest: Partial<Group> = {}): Group {
  return makeGroup({
    node,
    content: parts,
    opacity: 1,
    blend: null,
    clips: [],
    masks: [],
    effects: [],
    findings: findingsOf(found),
    ...rest,
  });
}

const sameList = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((x, i) => x === b[i]);
/** Of one node and place: did they come to the same? */
const sameGroup = (a: Group, b: Group): boolean =>
  sameList(a.content, b.content) &&
  sameList(a.clips, b.clips) &&
  sameList(a.masks, b.masks) &&
  sameFindings(a.findings, b.findings);
