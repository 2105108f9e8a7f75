'use client';
import { Search, Trash2 } from 'lucide-react';
import { useCallback, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { pasteClip } from '@/core/edit/clip';
import { tryOut } from '@/core/edit/history';
import { moveNodes, scaleNodes, scalingAbout } from '@/core/edit/place';
import { boxIn } from '@/core/derive/box';
import { IDENTITY } from '@/core/geometry/matrix';
import { centre, isEmpty, type Rect } from '@/core/geometry/rect';
import type { Design } from '@/core/model/schema';
import { findReady, READY_MADES } from '@/core/ready/catalogue';
import { drawReady, putReady } from '@/core/ready/put';
import { READY_FAMILIES, type Ready } from '@/core/ready/types';
import { bleedRect } from '@/core/scene/scene';
import { Button } from '@/ui/Button';
import { useBench, useSession } from '../session/context';
import { later } from '../session/later';
import { clipOf, ownReadies, removeReady, type OwnReady } from '../session/ownReadies';
import { painterOf } from '../session/painter';
import type { Session } from '../session/session';

/** Faces that ready-mades are set in where the design has no looks of its own. */
const FACES = ['bitter-700', 'archivo-400'];
const makingOf = (s: Session) => ({ newId: s.newId, lab: s.palette.labOf.bind(s.palette) });

/** Prepared groups by their pictures, in the design's own colours and looks: pressed, one lies on the page. */
export function ReadyMades({ onDone }: { onDone: () => void }) {
  const session = useSession();
  const [query, setQuery] = useState('');
  const [own, setOwn] = useState<readonly OwnReady[]>([]);
  const [faces, setFaces] = useState(false);
  const load = useCallback(() => void ownReadies(session).then(setOwn), [session]);
  useEffect(() => {
    load();
    void session.loadFaces(FACES).finally(() => setFaces(true));
  }, [session, load]);
  const found = findReady(query);
  const place = (r: Ready) => {
    let id = '';
    const done = session.commit(`Put ${r.name}`, (d) => {
      id = putReady(d, session.state.design, session.page.id, r, makingOf(session));
    });
    if (!done) return;
    session.select([id]);
    session.say(
      `${r.name} lies on the page${r.dials.length ? '; what can be set of it is in Details' : ''}. Double-click its words to change them.`,
    );
    onDone();
  };
  const placeOwn = (r: OwnReady) => {
    const clip = clipOf(r);
    if (!clip) return session.say(`“${r.name}” cannot be read any more.`, 'warn');
    let ids: readonly string[] = [];
    const { page } = session;
    const put = (d: Parameters<typeof pasteClip>[0]) =>
      void (ids = pasteClip(d, page.id, clip, session.newId, IDENTITY));
    const { width, height } = session.setup;
    // In the middle, and no larger than the page.
    const tried = tryOut(session.state.design, put);
    const box = boxOf(session, tried, ids);
    const k = Math.min(1, (0.9 * width) / (box.x1 - box.x0), (0.9 * height) / (box.y1 - box.y0));
    const c = centre(box);
    const done = session.commit(`Put ${r.name}`, (d) => {
      put(d);
      if (k < 1) scaleNodes(d, page, ids, scalingAbout(k, k, c));
      moveNodes(d, page, ids, width / 2 - c.x, height / 2 - c.y);
    });
    if (!done) return;
    session.select(ids);
    session.say(`${r.name} lies on the page.`);
    onDone();
  };
  const mine = own.filter((r) => r.name.toLowerCase().includes(query.trim().toLowerCase()));
  return (
    <>
      <div className="flex items-center gap-2 border-b border-line px-3 py-2">
        <Search size={14} aria-hidden className="shrink-0 text-faint" />
        <input
          autoFocus
          aria-label="Search ready-mades"
          placeholder="Search: calendar, border, price …"
          className="h-7 w-full min-w-0 bg-transparent outline-none"
          value={query}
          onChange={(e) => setQuery(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && found.length) place(found[0]);
          }}
        />
      </div>
      <div className="min-h-0 flex-1 overflow-auto px-3 pb-2">
        {mine.length > 0 && (
          <section aria-label="Your own">
            <h3 className="m-0 mt-2 mb-1 text-[12px] font-semibold text-faint">Your own</h3>
            <ul className="m-0 list-none p-0">
              {mine.map((r) => (
                <li key={r.id} className="flex items-center gap-1">
                  <button
                    type="button"
                    className="min-w-0 flex-1 cursor-pointer truncate rounded-sm border-0 bg-transparent px-2 py-1 text-left hover:bg-line"
                    onClick={() => placeOwn(r)}
                  >
                    {r.name}
                  </button>
                  <Button
                    kind="quiet"
                    aria-label={`Throw away ${r.name}`}
                    title="Throw it away"
                    onClick={() => void removeReady(session, r, load)}
                  >
                    <Trash2 size={14} aria-hidden />
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )}
        {READY_FAMILIES.map((family) => {
          const list = (query ? found : READY_MADES).filter((r) => r.family === family);
          return (
            list.length > 0 && (
              <section key={family} aria-label={family}>
                <h3 className="m-0 mt-2 mb-1 text-[12px] font-semibold text-faint">{family}</h3>
                <div className="grid grid-cols-4 gap-1.5">
                  {list.map((r) => (
                    <button
                      key={r.id}
                      type="button"
                      aria-label={r.name}
                      title={r.name}
                      className="cursor-pointer rounded-sm border border-edge bg-white p-0 hover:border-accent focus-visible:border-accent"
                      onClick={() => place(r)}
                    >
                      {faces && <Sample ready={r} />}
                    </button>
                  ))}
                </div>
              </section>
            )
          );
        })}
        {query && !found.length && !mine.length && (
          <p className="my-3 text-faint">Nothing is called that. Try a plainer word: border, date, price.</p>
        )}
      </div>
      <p className="m-0 border-t border-line px-3 py-2 text-[12px] text-faint">
        A group of yours joins them by “Keep as a ready-made”, in the menu at the pointer.
      </p>
    </>
  );
}

/** CSS pixels of a picture. */
const [WIDE, HIGH] = [84, 84];

function boxOf(s: Session, d: Design, ids: readonly string[]): Rect {
  const boxes = ids.map((id) => boxIn(d, id, IDENTITY, s.engines.fonts)).filter((b) => !isEmpty(b));
  return {
    x0: Math.min(...boxes.map((b) => b.x0)),
    y0: Math.min(...boxes.map((b) => b.y0)),
    x1: Math.max(...boxes.map((b) => b.x1)),
    y1: Math.max(...boxes.map((b) => b.y1)),
  };
}

function Sample({ ready }: { ready: Ready }) {
  const session = useSession();
  const canvas = useRef<HTMLCanvasElement>(null);
  const epoch = useBench((s) => s.fontsEpoch);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver(([entry]) => entry.isIntersecting && setSeen(true));
    if (canvas.current) watch.observe(canvas.current);
    return () => watch.disconnect();
  }, []);
  const made = useMemo(() => {
    if (!seen) return null;
    const design: Design = { ...session.state.design, setup: session.setup };
    let n = 0;
    const kit = drawReady(design, ready, {}, { ...makingOf(session), newId: () => `sample-${n++}` });
    const id = kit.nodes[kit.nodes.length - 1].id;
    const page = { id: 'sample', name: '', children: [id] };
    const shown: Design = {
      ...design,
      pages: [page],
      nodes: Object.fromEntries(kit.nodes.map((x) => [x.id, x])),
      stories: Object.fromEntries(kit.stories.map((x) => [x.id, x])),
    };
    return { shown, page, id };
  }, [seen, session, ready]);
  const draw = useEffectEvent(() => {
    const ctx = canvas.current?.getContext('2d');
    if (!ctx || !made) return;
    const { shown, page, id } = made;
    const box = boxOf(session, shown, [id]);
    const sheet = bleedRect(shown.setup);
    // What takes most of the page is shown on it, all else by itself.
    const large = (box.y1 - box.y0) / (sheet.y1 - sheet.y0) > 0.75;
    const r = large ? sheet : box;
    const [w, h] = [Math.max(1, r.x1 - r.x0), Math.max(1, r.y1 - r.y0)];
    const scale = Math.min((WIDE - 10) / w, (HIGH - 10) / h) * 2;
    const view = { scale, x: WIDE - ((r.x0 + r.x1) / 2) * scale, y: HIGH - ((r.y0 + r.y1) / 2) * scale };
    ctx.setTransform(1, 0, 0, 1, 0, 0);
    ctx.clearRect(0, 0, WIDE * 2, HIGH * 2);
    if (large) {
      ctx.strokeStyle = '#b0b0b0';
      ctx.strokeRect(view.x, view.y, shown.setup.width * scale, shown.setup.height * scale);
    }
    const scene = session.engines.builder.build(shown, page);
    painterOf(session).paint(ctx, scene.root.content, session.palette, view, {
      x0: -1e6,
      y0: -1e6,
      x1: 1e6,
      y1: 1e6,
    });
  });
  useEffect(() => (made ? later(draw) : undefined), [made, epoch]);
  return (
    <canvas
      ref={canvas}
      aria-hidden
      width={WIDE * 2}
      height={HIGH * 2}
      style={{ width: '100%', aspectRatio: `${WIDE} / ${HIGH}` }}
      className="block rounded-[3px]"
    />
  );
}
