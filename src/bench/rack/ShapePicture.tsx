import { draw } from '@/core/geometry/path';
import { shapeById, shapePath, valuesOf } from '@/core/shapes/catalogue';

/** A dialled shape as it comes, in a square; with its knobs where they will stand. */
export function ShapePicture({ id, size, knobs = false }: { id: string; size: number; knobs?: boolean }) {
  const def = shapeById(id);
  if (!def) return null;
  const proportion = def.proportion ?? 1;
  const inner = size - 6;
  const [w, h] = proportion > 1 ? [inner / proportion, inner] : [inner, inner * proportion];
  const [left, top] = [(size - w) / 2, (size - h) / 2];
  let d = '';
  draw(shapePath(id, {}, w, h), {
    moveTo: (x, y) => void (d += `M${x} ${y}`),
    lineTo: (x, y) => void (d += `L${x} ${y}`),
    curveTo: (a, b, c, e, x, y) => void (d += `C${a} ${b} ${c} ${e} ${x} ${y}`),
    close: () => void (d += 'Z'),
  });
  const values = valuesOf(def, {});
  return (
    <svg width={size} height={size} viewBox={`${-left} ${-top} ${size} ${size}`} aria-hidden className="shrink-0">
      {def.open ? (
        <path d={d} fill="none" stroke="currentColor" strokeWidth={size > 40 ? 2.5 : 1.8} opacity="0.75" />
      ) : (
        <path d={d} fill="currentColor" fillRule="nonzero" opacity="0.75" />
      )}
      {knobs &&
        def.knobs.map((k, i) => {
          const p = k.at(values, w, h);
          return (
            <circle key={i} cx={p.x} cy={p.y} r={3.5} fill="var(--halo)" stroke="var(--accent)" strokeWidth={1.5} />
          );
        })}
    </svg>
  );
}
