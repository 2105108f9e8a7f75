import type { Design, Page } from '../../model/schema';
import { withDescendants } from '../../model/tree';

/**
 * The same design, with objects and words of some pages that are objects of their own: what is worked out of them is
 * remembered by them, and goes when they go. Nothing else is another.
 */
export function apart(design: Design, pages: ReadonlySet<Page>): Design {
  const nodes = { ...design.nodes };
  const stories = { ...design.stories };
  for (const page of pages)
    for (const child of page.children)
      for (const id of withDescendants(design, child)) {
        const node = design.nodes[id];
        nodes[id] = { ...node };
        if (!('story' in node)) continue;
        const story = design.stories[node.story];
        if (story) stories[node.story] = { ...story, paragraphs: story.paragraphs.map((p) => ({ ...p })) };
      }
  return { ...design, nodes, stories, pages: design.pages.map((page) => (pages.has(page) ? { ...page } : page)) };
}
