import type { Design } from '@/core/model/schema';

/** Does the page hold anything yet? */
export function hasObjects(design: Design, page: string): boolean {
  return (design.pages.find((p) => p.id === page)?.children.length ?? 0) > 0;
}
