import { pageById } from '@/core/model/tree';
import type { Design } from '@/core/model/schema';

/** Does the page hold anything yet? */
export function hasObjects(design: Design, page: string): boolean {
  return (pageById(design, page)?.children.length ?? 0) > 0;
}
