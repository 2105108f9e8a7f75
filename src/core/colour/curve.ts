/** Places nearer than this are one. */
const LEAST = 1e-6;

/** Points of a curve, by rising x, both 0…1. */
export type CurvePoints = readonly (readonly [number, number])[];

/**
 * A smooth curve through points that never swings beyond them (Fritsch and Carlson, “Monotone piecewise cubic
 * interpolation”, 1980); level before the first point and after the last. Points at one x count as the last of them.
 */
export function curveThrough(points: CurvePoints): (x: number) => number {
  const p = points.filter((q, i) => i === points.length - 1 || points[i + 1][0] > q[0] + LEAST);
  const n = p.length;
  if (n === 1) return () => p[0][1];
  const slope = Array.from({ length: n - 1 }, (_, i) => (p[i + 1][1] - p[i][1]) / (p[i + 1][0] - p[i][0]));
  const tangent = p.map((_, i) =>
    i === 0 ? slope[0] : i === n - 1 ? slope[n - 2] : slope[i - 1] * slope[i] <= 0 ? 0 : (slope[i - 1] + slope[i]) / 2,
  );
  slope.forEach((s, i) => {
    if (s === 0) tangent[i] = tangent[i + 1] = 0;
    else {
      const length = Math.hypot(tangent[i] / s, tangent[i + 1] / s);
      if (length > 3) {
        tangent[i] *= 3 / length;
        tangent[i + 1] *= 3 / length;
      }
    }
  });
  return (x) => {
    if (x <= p[0][0]) return p[0][1];
    if (x >= p[n - 1][0]) return p[n - 1][1];
    let i = 0;
    while (x > p[i + 1][0]) i++;
    const h = p[i + 1][0] - p[i][0];
    const t = (x - p[i][0]) / h;
    const u = 1 - t;
    return (
      p[i][1] * u * u * (1 + 2 * t) +
      p[i + 1][1] * t * t * (3 - 2 * t) +
      h * t * u * (u * tangent[i] - t * tangent[i + 1])
    );
  };
}
