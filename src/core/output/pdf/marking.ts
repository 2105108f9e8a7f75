import type { PDFRef } from '@cantoo/pdf-lib';
import type { Rect } from '../../geometry/rect';
import type { Design, Page } from '../../model/schema';
import { withDescendants, type NodeId } from '../../model/tree';
import type { Leaf, Part } from '../../scene/scene';
import { someLeaf } from '../../scene/walk';
import type { ContentStream } from './content';
import { name, type PdfFile, type Value } from './file';
import { readingOrder } from './readingOrder';

/** A thing that is read aloud: words, or a picture with what is said of it. */
interface Element {
  readonly tag: 'P' | 'Figure';
  readonly alt?: string;
  readonly ids: number[];
  bounds: Rect;
}

/**
 * What page content belongs to: layers that can be shown and hidden (ISO 32000-1 8.11), and elements that are read
 * aloud in an order of their own (14.7). Parts are told as they are drawn; what is neither words nor a picture is told
 * to be ornament.
 */
export class Marking {
  /** Properties of the file's resources. */
  readonly properties: Record<string, Value> = {};
  private readonly layerOf = new Map<NodeId, { readonly key: string; readonly ref: PDFRef }>();
  private readonly altOf = new Map<NodeId, { readonly holder: NodeId; readonly alt: string }>();
  private readonly order: PDFRef[] = [];
  private readonly pages: { readonly ref: PDFRef; readonly elements: Element[] }[] = [];
  private elements = new Map<string, Element>();
  private ids = 0;
  private open: { layer: string | null; element: string | null } = { layer: null, element: null };

  constructor(
    private readonly file: PdfFile,
    private readonly design: Design,
    private readonly wants: { readonly layers: boolean; readonly tagged: boolean },
  ) {
    if (wants.tagged)
      for (const node of Object.values(design.nodes))
        if (node.alt)
          for (const id of withDescendants(design, node.id)) this.altOf.set(id, { holder: node.id, alt: node.alt });
  }

  /** Begins a page; its layers are made known. */
  begin(page: Page): void {
    this.elements = new Map();
    this.ids = 0;
    if (!this.wants.layers) return;
    for (const id of page.children) {
      const node = this.design.nodes[id];
      if (node?.kind !== 'group' || !node.layer || this.layerOf.has(id)) continue;
      const ref = this.file.add({ Type: name('OCG'), Name: node.name || 'Layer' });
      const key = `L${this.order.length + 1}`;
      this.properties[key] = ref;
      this.order.push(ref);
      for (const inside of withDescendants(this.design, id)) this.layerOf.set(inside, { key, ref });
    }
  }

  /** Says what the next part belongs to; what was open and is another closes. */
  enter(out: ContentStream, part: Part): void {
    const layer = this.layerOf.get(part.node)?.key ?? null;
    const found = this.wants.tagged ? this.elementOf(part) : null;
    const element = found?.key ?? (this.wants.tagged ? 'ornament' : null);
    if (layer === this.open.layer && element === this.open.element) return;
    if (this.open.element) out.op('EMC');
    if (layer !== this.open.layer) {
      if (this.open.layer) out.op('EMC');
      if (layer) out.op(`/OC /${layer} BDC`);
    }
    if (element === 'ornament') out.op('/Artifact BMC');
    else if (element && found) {
      const known = this.elements.get(element) ?? { ...found.element, ids: [] };
      this.elements.set(element, known);
      const { bounds } = known;
      const b = part.inkBounds;
      known.bounds = {
        x0: Math.min(bounds.x0, b.x0),
        y0: Math.min(bounds.y0, b.y0),
        x1: Math.max(bounds.x1, b.x1),
        y1: Math.max(bounds.y1, b.y1),
      };
      out.op(`/${known.tag} <</MCID ${this.ids}>> BDC`);
      known.ids.push(this.ids++);
    }
    this.open = { layer, element };
  }

  /** Closes what is open, before anything that is no part of the page. */
  leave(out: ContentStream): void {
    if (this.open.element) out.op('EMC');
    if (this.open.layer) out.op('EMC');
    this.open = { layer: null, element: null };
  }

  /** Marks round the sheet and the like are no content. */
  ornament(out: ContentStream, draw: () => void): void {
    if (!this.wants.tagged) return draw();
    out.op('/Artifact BMC');
    draw();
    out.op('EMC');
  }

  private elementOf(part: Part): { readonly key: string; readonly element: Omit<Element, 'ids'> } | null {
    const bounds = part.inkBounds;
    const said = this.altOf.get(part.node);
    if (said) return { key: `alt ${said.holder}`, element: { tag: 'Figure', alt: said.alt, bounds } };
    if ('fixed' in part && part.fixed) return null;
    const words = (l: Leaf) => l.type === 'glyphs' || l.words !== undefined;
    const picture = (l: Leaf) => l.paint.kind === 'picture' && !words(l);
    const has = (test: (l: Leaf) => boolean) => (part.type === 'group' ? someLeaf(part, test) : test(part));
    if (has(words)) return { key: `words ${part.node}`, element: { tag: 'P', bounds } };
    // A picture of which nothing is said has its name at least.
    if (has(picture)) {
      const alt = this.design.nodes[part.node]?.name || 'Picture';
      return { key: `picture ${part.node}`, element: { tag: 'Figure', alt, bounds } };
    }
    return null;
  }

  /** Ends a page, which is this object of the file; answers what its dictionary gets. */
  end(ref: PDFRef): Record<string, Value> {
    if (!this.wants.tagged) return {};
    this.pages.push({ ref, elements: [...this.elements.values()] });
    return { StructParents: this.pages.length - 1, Tabs: name('S') };
  }

  /** What the catalog gets. */
  catalog(language: string): Record<string, Value> {
    const { file } = this;
    const catalog: Record<string, Value> = {};
    if (this.order.length)
      catalog.OCProperties = {
        OCGs: [...this.order],
        D: { Name: 'Layers', Order: [...this.order], ON: [...this.order] },
      };
    if (!this.wants.tagged) return catalog;
    const root = file.reserve();
    const whole = file.reserve();
    const kids: PDFRef[] = [];
    const parents: Value[] = [];
    this.pages.forEach(({ ref, elements }, n) => {
      const byId: PDFRef[] = [];
      for (const at of readingOrder(elements.map((e) => e.bounds))) {
        const { tag, alt, ids } = elements[at];
        const made = file.add({
          Type: name('StructElem'),
          S: name(tag),
          P: whole,
          Pg: ref,
          ...(alt && { Alt: alt }),
          K: ids,
        });
        kids.push(made);
        for (const id of ids) byId[id] = made;
      }
      parents.push(n, file.add(byId));
    });
    file.set(whole, { Type: name('StructElem'), S: name('Document'), P: root, K: kids });
    file.set(root, {
      Type: name('StructTreeRoot'),
      K: [whole],
      ParentTree: { Nums: parents },
      ParentTreeNextKey: this.pages.length,
    });
    return { ...catalog, StructTreeRoot: root, MarkInfo: { Marked: true }, Lang: language };
  }
}
