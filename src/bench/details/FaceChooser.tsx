'use client';
import { Star } from 'lucide-react';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { FACES, faceName, faceRow, type FaceKind, type FaceRow } from '@/core/text/faces';
import { ListChoice } from '@/ui/Choice';
import { FindField } from '@/ui/FindField';
import { Slip } from '@/ui/Slip';
import { useBench, useSession } from '../session/context';
import { favourFace, noteFace } from '../session/settings';
import { cssFace, showFace } from './shownFaces';

const KINDS: Record<FaceKind, string> = {
  sans: 'Sans',
  condensed: 'Condensed',
  serif: 'Serif',
  slab: 'Slab',
  display: 'Display',
  script: 'Script',
  blackletter: 'Blackletter',
  mono: 'Typewriter',
};
type Shown = FaceKind | 'all';

interface Family {
  readonly name: string;
  readonly faces: readonly FaceRow[];
}
const FAMILIES: readonly Family[] = [...new Set(FACES.map((f) => f.family))].map((name) => ({
  name,
  faces: FACES.filter((f) => f.family === name),
}));

interface Props {
  /** The face of the letters at hand; null: several. */
  readonly value: string | null;
  /** What is shown in each face: the design's own words. */
  readonly sample: string;
  readonly onPreview: (face: string | null) => void;
  readonly onChoose: (face: string) => void;
}

/** The face of letters: a list by kind, each in its own letters, searched by name; those used last and liked stand first. */
export function FaceChooser(props: Props) {
  const [open, setOpen] = useState(false);
  const { value } = props;
  const missing = value !== null && !faceRow(value);
  useEffect(() => {
    if (value && !missing) void showFace(value);
  }, [value, missing]);
  return (
    <Slip
      title="Faces"
      width={400}
      open={open}
      onOpenChange={(on) => {
        setOpen(on);
        if (!on) props.onPreview(null);
      }}
      trigger={
        <button
          type="button"
          aria-label="Face"
          aria-description={value === null ? 'several' : faceName(value)}
          className="flex h-8 w-full items-center justify-between rounded-sm border border-edge bg-field px-2 text-left hover:bg-raised"
        >
          <span className="truncate" style={value && !missing ? { fontFamily: cssFace(value) } : undefined}>
            {value === null ? 'mixed' : `${faceName(value)}${missing ? ' (missing)' : ''}`}
          </span>
          <span aria-hidden className="text-faint">
            ▾
          </span>
        </button>
      }
    >
      <Chooser {...props} close={() => setOpen(false)} />
    </Slip>
  );
}

function Chooser({ value, sample, onPreview, onChoose, close }: Props & { close: () => void }) {
  const session = useSession();
  const recent = useBench((s) => s.recentFaces);
  const liked = useBench((s) => s.likedFaces);
  const [query, setQuery] = useState('');
  const [kind, setKind] = useState<Shown>('all');
  const [at, setAt] = useState(0);
  const found = useMemo(() => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean);
    const rank = (f: Family): number => {
      if (f.faces.some((x) => x.id === value)) return -1;
      const used = f.faces.findIndex((x) => recent.includes(x.id));
      if (liked.includes(f.name)) return 0;
      return used >= 0 ? 1 : 2;
    };
    return FAMILIES.filter(
      (f) => (kind === 'all' || f.faces[0].kind === kind) && words.every((w) => f.name.toLowerCase().includes(w)),
    ).toSorted((a, b) => rank(a) - rank(b));
  }, [query, kind, recent, liked, value]);

  const choose = (face: string) => {
    onPreview(null);
    onChoose(face);
    noteFace(session, face);
    close();
  };
  /** The face of a family that is nearest to the one at hand. */
  const nearest = (f: Family): FaceRow => {
    const now = value ? faceRow(value) : undefined;
    const away = (x: FaceRow) =>
      (x.italic === (now?.italic ?? false) ? 0 : 10_000) + Math.abs(x.weight - (now?.weight ?? 400));
    return [...f.faces].sort((a, b) => away(a) - away(b))[0];
  };
  return (
    <>
      <div className="mb-2 grid grid-cols-[1fr_auto] gap-2">
        <FindField
          label="Find a face"
          list="face"
          placeholder="Name of a face"
          value={query}
          at={at}
          count={found.length}
          onChange={(text) => {
            setQuery(text);
            setAt(0);
          }}
          onMove={(i) => {
            setAt(i);
            if (found[i]) onPreview(nearest(found[i]).id);
          }}
          onTake={(i) => choose(nearest(found[i]).id)}
        />
        <ListChoice
          hideLabel
          label="Kind of face"
          value={kind}
          groups={[
            {
              name: '',
              options: [
                { value: 'all' as Shown, label: 'All kinds' },
                ...Object.entries(KINDS).map(([v, label]) => ({ value: v as Shown, label })),
              ],
            },
          ]}
          onChange={(v) => {
            setKind(v);
            setAt(0);
          }}
        />
      </div>
      <div
        id="face-list"
        role="grid"
        aria-label="Faces"
        className="max-h-[min(420px,calc(var(--radix-popover-content-available-height)-150px))] overflow-auto"
      >
        {found.map((f, i) => (
          <FamilyRow
            key={f.name}
            id={`face-${i}`}
            family={f}
            current={i === at}
            value={value}
            sample={sample}
            first={nearest(f).id}
            liked={liked.includes(f.name)}
            onLike={() => favourFace(session, f.name)}
            onPreview={onPreview}
            onChoose={choose}
          />
        ))}
        {!found.length && <p className="m-0 p-2 text-faint">No face is called that.</p>}
      </div>
      <p className="m-0 mt-2 text-[12px] text-faint">
        All of these ship with Holvet under the SIL Open Font License: print, sell and embed what you make with them.
      </p>
    </>
  );
}

interface RowProps {
  readonly id: string;
  readonly family: Family;
  readonly current: boolean;
  readonly value: string | null;
  readonly sample: string;
  readonly first: string;
  readonly liked: boolean;
  readonly onLike: () => void;
  readonly onPreview: (face: string | null) => void;
  readonly onChoose: (face: string) => void;
}

const FamilyRow = memo(function FamilyRow(p: RowProps) {
  const { family, value } = p;
  const row = useRef<HTMLDivElement>(null);
  const [there, setThere] = useState(false);
  // A face is fetched when its row comes into sight.
  useEffect(() => {
    const el = row.current;
    if (!el) return;
    let alive = true;
    const watch = new IntersectionObserver(([entry]) => {
      if (entry.isIntersecting) void showFace(p.first).then((ok) => alive && setThere(ok));
    });
    watch.observe(el);
    return () => {
      alive = false;
      watch.disconnect();
    };
  }, [p.first]);
  const chosen = family.faces.some((f) => f.id === value);
  return (
    <div
      ref={row}
      id={p.id}
      role="row"
      aria-selected={chosen}
      aria-label={family.name}
      className={`grid grid-cols-[1fr_auto] items-center gap-x-2 border-b border-line px-1 py-1.5 ${p.current ? 'bg-raised' : ''}`}
      onPointerLeave={() => p.onPreview(null)}
    >
      <div role="gridcell" className="min-w-0">
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${family.name}, choose`}
          className="min-w-0 cursor-pointer border-0 bg-transparent p-0 text-left"
          onPointerEnter={() => p.onPreview(p.first)}
          onClick={() => p.onChoose(p.first)}
        >
          <span
            className={`block truncate text-[22px] leading-7 ${there ? '' : 'opacity-0'}`}
            style={{ fontFamily: cssFace(p.first) }}
          >
            {p.sample}
          </span>
          <span className={`text-[12px] ${chosen ? 'font-semibold text-accent' : 'text-faint'}`}>{family.name}</span>
        </button>
      </div>
      <div role="gridcell">
        <button
          type="button"
          tabIndex={-1}
          aria-label={p.liked ? `${family.name}: no longer first` : `${family.name}: keep first`}
          aria-pressed={p.liked}
          className={`cursor-pointer border-0 bg-transparent p-1 ${p.liked ? 'text-accent' : 'text-faint'}`}
          onClick={p.onLike}
        >
          <Star size={15} aria-hidden fill={p.liked ? 'currentColor' : 'none'} />
        </button>
      </div>
      {family.faces.length > 1 && (
        <div role="gridcell" className="col-span-2 flex flex-wrap gap-x-2 text-[12px]">
          {family.faces.map((f) => (
            <button
              key={f.id}
              type="button"
              tabIndex={-1}
              className={`cursor-pointer border-0 bg-transparent p-0 hover:text-accent ${f.id === value ? 'font-semibold text-accent' : 'text-text'}`}
              onPointerEnter={() => p.onPreview(f.id)}
              onClick={() => p.onChoose(f.id)}
            >
              {f.style}
            </button>
          ))}
        </div>
      )}
    </div>
  );
});
