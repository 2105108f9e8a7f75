import { tryOut } from '@/core/edit/history';
import { mapPaints } from '@/core/model/paints';
import type { Design } from '@/core/model/schema';

/** The design without grain: no PDF says of it which dot it puts where. */
export const withoutGrain = (design: Design): Design =>
  tryOut(design, (d) =>
    mapPaints(d as Design, (p) => {
      if (p.kind !== 'gradient') return p;
      const { grain: _, ...rest } = p;
      return rest;
    }),
  );
