import type paper from 'paper';
import { contoursOf } from '../segments';
import { PathBuilder } from '../path';
import { NOTHING, type BooleanOp, type Region } from './region';

type Paper = typeof paper;

/**
 * Boolean operations of the slower engine; double precision, with tolerances made for pages some hundred units wide.
 */
export class ExactEngine {
  private readonly scope: paper.PaperScope;
  constructor(engine: Paper) {
    this.scope = new engine.PaperScope();
    // Paths are made outside any document.
    this.scope.setup(new this.scope.Size(1, 1));
    // Nothing is ever shown: its view would measure the page at every move of the pointer.
    this.scope.view.remove();
    this.scope.settings.insertItems = false;
  }

  combine(a: Region, b: Region, op: BooleanOp): Region | null {
    const [pa, pb] = [this.toEngine(a), this.toEngine(b)];
    const options = { insert: false };
    const result =
      op === 'union'
        ? pa.unite(pb, options)
        : op === 'subtract'
          ? pa.subtract(pb, options)
          : op === 'intersect'
            ? pa.intersect(pb, options)
            : pa.exclude(pb, options);
    return this.fromEngine(result as paper.PathItem);
  }

  private toEngine({ path, rule }: Region): paper.PathItem {
    const { scope } = this;
    const fillRule = rule === 'evenOdd' ? 'evenodd' : 'nonzero';
    const children = contoursOf(path).map(({ segments }) => {
      const p = new scope.Path({ insert: false, fillRule });
      p.moveTo(new scope.Point(segments[0].x0, segments[0].y0));
      for (const s of segments) {
        if (s.straight) p.lineTo(new scope.Point(s.x3, s.y3));
        else p.cubicCurveTo(new scope.Point(s.x1, s.y1), new scope.Point(s.x2, s.y2), new scope.Point(s.x3, s.y3));
      }
      p.closePath();
      // A compound path of one child gives its rule to nobody: the child needs it too.
      p.fillRule = fillRule;
      return p;
    });
    return new scope.CompoundPath({ insert: false, children, fillRule });
  }

  private fromEngine(item: paper.PathItem): Region {
    const out = new PathBuilder();
    const paths = item instanceof this.scope.CompoundPath ? (item.children as paper.Path[]) : [item as paper.Path];
    for (const p of paths) {
      const { curves } = p;
      if (curves.length < 1 || (curves.length === 1 && curves[0].isStraight())) continue;
      out.moveTo(curves[0].point1.x, curves[0].point1.y);
      curves.forEach((c, i) => {
        if (!c.hasHandles()) {
          if (i < curves.length - 1 || !p.closed) out.lineTo(c.point2.x, c.point2.y);
        } else
          out.curveTo(
            c.point1.x + c.handle1.x,
            c.point1.y + c.handle1.y,
            c.point2.x + c.handle2.x,
            c.point2.y + c.handle2.y,
            c.point2.x,
            c.point2.y,
          );
      });
      out.close();
    }
    return out.data.length ? { path: out.data, rule: 'nonZero' } : NOTHING;
  }
}
