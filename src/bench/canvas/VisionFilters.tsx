import { VISIONS, filterMatrix } from '@/core/colour/vision';

/** The colour matrices, as filters `vision-…` that a canvas can be seen through. */
export function VisionFilters() {
  return (
    <svg aria-hidden width="0" height="0" className="absolute">
      {VISIONS.map((v) => {
        const values = filterMatrix(v.id);
        return (
          values && (
            <filter
              key={v.id}
              id={`vision-${v.id}`}
              colorInterpolationFilters="linearRGB"
              x="0"
              y="0"
              width="1"
              height="1"
            >
              <feColorMatrix type="matrix" values={values} />
            </filter>
          )
        );
      })}
    </svg>
  );
}
