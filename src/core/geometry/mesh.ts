/** Triangles, three corners each, every corner x, y and its place t on a ramp. Later ones lie over earlier ones. */
export type TriangleMesh = number[];

type Corner = readonly [x: number, y: number, t: number];

/**
 * The same triangles cut along the lines where t is one of `levels` (rising), so that none lies on both sides of one.
 */
export function cutMesh(mesh: TriangleMesh, levels: readonly number[]): TriangleMesh {
  const out: TriangleMesh = [];
  for (let i = 0; i < mesh.length; i += 9) {
    const corner = (k: number): Corner => [mesh[i + k], mesh[i + k + 1], mesh[i + k + 2]];
    let rest: readonly Corner[] = [corner(0), corner(3), corner(6)];
    const top = Math.max(mesh[i + 2], mesh[i + 5], mesh[i + 8]);
    for (const level of levels) {
      if (level >= top || rest.length < 3) break;
      fan(side(rest, level, -1), out);
      rest = side(rest, level, 1);
    }
    fan(rest, out);
  }
  return out;
}

/** The part of a polygon where t is at most (−1) or at least (1) a level. */
function side(polygon: readonly Corner[], level: number, way: -1 | 1): Corner[] {
  const out: Corner[] = [];
  polygon.forEach((b, i) => {
    const a = polygon[(i + polygon.length - 1) % polygon.length];
    const [da, db] = [(a[2] - level) * way, (b[2] - level) * way];
    if (da * db < 0) {
      const f = da / (da - db);
      out.push([a[0] + f * (b[0] - a[0]), a[1] + f * (b[1] - a[1]), level]);
    }
    if (db >= 0) out.push(b);
  });
  return out;
}

function fan(polygon: readonly Corner[], out: TriangleMesh): void {
  for (let k = 2; k < polygon.length; k++) {
    const [a, b, c] = [polygon[0], polygon[k - 1], polygon[k]];
    if ((b[0] - a[0]) * (c[1] - a[1]) === (c[0] - a[0]) * (b[1] - a[1])) continue;
    out.push(...a, ...b, ...c);
  }
}
