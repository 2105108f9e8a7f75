import { localBox } from '../derive/box';
import { applyVector } from '../geometry/matrix';
import { height, isEmpty, width } from '../geometry/rect';
import type { Design, Page } from '../model/schema';
import { pageMatrix, topmost, type NodeId } from '../model/tree';
import type { FontBook } from '../text/fonts';
import type { DesignDraft } from './history';
import { moveNodes } from './place';
import { sizeExactly } from './size';

/**
 * Makes objects as wide and as high as one of them, each about its own middle and along its own sides; dialled shapes
 * of its kind take its knobs and corners too. What has no extent is left as it is.
 */
export function sameSize(
  design: Design,
  page: Page,
  ids: readonly NodeId[],
  like: NodeId,
  fonts: FontBook,
): (d: DesignDraft) => void {
  const frameOf = (id: NodeId) => {
    const box = localBox(design, design.nodes[id], fonts);
    const matrix = pageMatrix(design, page, id);
    const [sx, sy] = [Math.hypot(matrix[0], matrix[1]), Math.hypot(matrix[2], matrix[3])];
    return { frame: { box, matrix, single: id }, w: width(box) * sx, h: height(box) * sy };
  };
  const target = frameOf(like);
  const first = design.nodes[like];
  return (d) => {
    for (const id of topmost(design, page, ids)) {
      if (id === like) continue;
      const { frame, w, h } = frameOf(id);
      if (isEmpty(frame.box) || !(w > 0) || !(h > 0)) continue;
      const want = { x: target.w / w, y: target.h / h };
      if (want.x !== 1 || want.y !== 1) {
        sizeExactly(design, page, [id], frame, want, fonts)(d);
        const by = applyVector(frame.matrix, {
          x: (width(frame.box) * (1 - want.x)) / 2,
          y: (height(frame.box) * (1 - want.y)) / 2,
        });
        moveNodes(d, page, [id], by.x, by.y);
      }
      const node = d.nodes[id];
      if (first.kind !== 'shape' || node.kind !== 'shape' || node.shape !== first.shape) continue;
      node.knobs = { ...first.knobs };
      if (first.corners) node.corners = structuredClone(first.corners) as typeof node.corners;
      else delete node.corners;
    }
  };
}
