import type { PathKit, PathKitPath } from 'pathkit-wasm';
import { CLOSE, COORDS, CUBIC, LINE, MOVE, PathBuilder, type PathData } from '../path';
import { NOTHING, type BooleanOp, type Region } from './region';

// Verbs of the engine's command lists.
const [V_MOVE, V_LINE, V_QUAD, V_CONIC, V_CUBIC, V_CLOSE] = [0, 1, 2, 3, 4, 5];

/** Boolean operations of the fast engine; single precision, so it is given coordinates round zero. */
export class FastEngine {
  constructor(private readonly kit: PathKit) {}

  /** The result, or null where the engine gives up. */
  combine(a: Region, b: Region, op: BooleanOp): Region | null {
    const { kit } = this;
    const [pa, pb] = [this.toEngine(a), this.toEngine(b)];
    const ops = {
      union: kit.PathOp.UNION,
      subtract: kit.PathOp.DIFFERENCE,
      intersect: kit.PathOp.INTERSECT,
      exclude: kit.PathOp.XOR,
    };
    const result = kit.MakeFromOp(pa, pb, ops[op]);
    const out = result ? fromEngine(result) : null;
    result?.delete();
    pa.delete();
    pb.delete();
    return out;
  }

  private toEngine({ path, rule }: Region): PathKitPath {
    const { kit } = this;
    const words = new Float32Array(path.length + path.length / 3 + 2);
    let n = 0;
    let open = false;
    for (let i = 0; i < path.length;) {
      const op = path[i++];
      if (op === MOVE && open) words[n++] = V_CLOSE;
      words[n++] = op === MOVE ? V_MOVE : op === LINE ? V_LINE : op === CUBIC ? V_CUBIC : V_CLOSE;
      for (let k = COORDS[op]; k > 0; k--) words[n++] = path[i++];
      open = op !== CLOSE;
    }
    if (open) words[n++] = V_CLOSE;
    const at = kit._malloc(n * 4);
    kit.HEAPF32.set(words.subarray(0, n), at / 4);
    const made = kit._FromCmds(at, n);
    kit._free(at);
    made.setFillType(rule === 'evenOdd' ? kit.FillType.EVENODD : kit.FillType.WINDING);
    return made;
  }
}

function fromEngine(path: PathKitPath): Region {
  const out = new PathBuilder();
  let [x, y] = [0, 0];
  for (const c of path.toCmds()) {
    switch (c[0]) {
      case V_MOVE:
        out.moveTo(c[1], c[2]);
        break;
      case V_LINE:
        out.lineTo(c[1], c[2]);
        break;
      case V_QUAD:
        // The same curve, a degree higher.
        out.curveTo(
          x + (2 / 3) * (c[1] - x),
          y + (2 / 3) * (c[2] - y),
          c[3] + (2 / 3) * (c[1] - c[3]),
          c[4] + (2 / 3) * (c[2] - c[4]),
          c[3],
          c[4],
        );
        break;
      case V_CONIC:
        throw new Error('the boolean engine answered with a conic, though it was given none');
      case V_CUBIC:
        out.curveTo(c[1], c[2], c[3], c[4], c[5], c[6]);
        break;
      case V_CLOSE:
        out.close();
        break;
    }
    if (c.length > 2) [x, y] = [c[c.length - 2], c[c.length - 1]];
  }
  return out.data.length ? { path: withoutEmpty(out.data), rule: 'evenOdd' } : NOTHING;
}

/** Drops contours that are a mere point. */
function withoutEmpty(path: PathData): PathData {
  const out: number[] = [];
  for (let i = 0; i < path.length;) {
    let j = i + 3;
    while (j < path.length && path[j] !== MOVE) j += 1 + COORDS[path[j]];
    if (path[i + 3] === LINE || path[i + 3] === CUBIC) for (let k = i; k < j; k++) out.push(path[k]);
    i = j;
  }
  return out;
}
