import type { Matrix } from '../geometry/matrix';
import { colourPaint, runOf } from '../model/defaults';
import { FIELD_MARK, type Design, type Field, type Page, type Paint, type Story } from '../model/schema';
import { setupOn } from '../model/setupOn';
import { pageById } from '../model/tree';
import { plain, type DesignDraft } from './history';
import { addMaster, setMaster } from './masters';
import { runAt } from './textPlace';
import { putParagraphs } from './writing';

/** Puts a field in the place of a stretch of a story, looking like what stands before it. It is one character there. */
export function putField(story: Story, from: number, to: number, field: Field): Story {
  const run = { ...runAt(story, from), text: FIELD_MARK, field };
  return putParagraphs(story, from, to, [{ ...story.paragraphs[0], runs: [run] }]);
}

/** What its maker calls this state of the design; empty: nothing. */
export function setVersion(d: DesignDraft, version: string): void {
  if (version) d.version = version;
  else delete d.version;
}

/** Of letters that number a page, points. */
const NUMBER_SIZE = 9;
/**
 * Least distance of a number from the foot of the page, points: a hand's breadth of a knife off the edge (common
 * practice: 5 mm).
 */
const FROM_EDGE = 14;

/** Puts a field in the middle of a sheet's foot, within its margin, as a text of its own. Answers its id. */
export function putFieldAtFoot(
  d: DesignDraft,
  sheet: string,
  field: Field,
  { newId, paint = colourPaint({ cmyk: [0, 0, 0, 1] }) }: { readonly newId: () => string; readonly paint?: Paint },
): string {
  const design = plain(d) as Design;
  const { width, height, margins } = setupOn(design, pageById(design, sheet)!);
  const [id, story] = [newId(), newId()];
  const run = { ...runOf(FIELD_MARK, NUMBER_SIZE, paint), field };
  const made: Story = { id: story, paragraphs: [{ align: 'middle', runs: [run] }] };
  d.stories[story] = made as DesignDraft['stories'][string];
  const foot = Math.max(FROM_EDGE, margins.bottom / 2);
  const transform: Matrix = [1, 0, 0, 1, width / 2, height - foot + NUMBER_SIZE * 0.35];
  const text: Design['nodes'][string] = {
    id,
    name: '',
    kind: 'displayText',
    transform,
    hidden: false,
    locked: false,
    story,
    stretch: 1,
  };
  d.nodes[id] = text as DesignDraft['nodes'][string];
  pageById(d, sheet)!.children.push(id);
  return id;
}

/**
 * Numbers pages by their master: that of the page, or a new one of that name, for all pages that have none. Answers the
 * id of the master.
 */
export function numberPages(
  d: DesignDraft,
  page: Pick<Page, 'id' | 'master'>,
  name: string,
  how: Parameters<typeof putFieldAtFoot>[3],
): string {
  let { master } = page;
  if (master === undefined) {
    master = how.newId();
    addMaster(d, { id: master, name });
    const bare = d.pages.filter((p) => p.master === undefined).map((p) => p.id);
    setMaster(d, bare, master);
  }
  putFieldAtFoot(d, master, 'page', how);
  return master;
}
