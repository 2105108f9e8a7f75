'use client';
import { Star, Trash2 } from 'lucide-react';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { usersOf } from '@/core/edit/faces';
import type { FaceKind } from '@/core/model/faceSchema';
import { FACES, faceIn, faceName, type FaceRow } from '@/core/text/faces';
import { Check, ListChoice } from '@/ui/Choice';
import { FileButton } from '@/ui/FileButton';
import { FindField } from '@/ui/FindField';
import { addFaces, forgetFaces, replaceFaceEverywhere } from '../commands/faces';
import { useBench, usePlacedDesign, useSession } from '../session/context';
import { favourFace, noteFace } from '../session/settings';
import { cssFace, showFace, type Shown as ShownFace } from '../view/shownFaces';

export interface FaceChoice {
  /** The face of the letters at hand; null: several. */
  readonly value: string | null;
  /** What is shown in each face: the design's own words. */
  readonly sample: string;
  readonly onPreview: (face: string | null) => void;
  readonly onChoose: (face: string) => void;
}

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
type Shown = FaceKind | 'all' | 'own';

/** Files that may hold faces. */
const FONT_FILES = '.ttf,.otf,.woff,.woff2,.ttc,.otc,font/*';

interface Family {
  readonly name: string;
  readonly faces: readonly (FaceRow & ShownFace)[];
  /** Brought by the person, not shipped. */
  readonly own: boolean;
}
const familiesOf = (faces: readonly (FaceRow & ShownFace)[], own: boolean): Family[] =>
  [...Map.groupBy(faces, (f) => f.family)].map(([name, found]) => ({ name, faces: found, own }));
const SHIPPED: readonly Family[] = familiesOf(FACES, false);

type Props = FaceChoice & { readonly missing: boolean; readonly close: () => void };

/** What the slip of faces holds. */
export function FaceList({ value, sample, missing, onPreview, onChoose, close }: Props) {
  const session = useSession();
  const design = usePlacedDesign();
  const recent = useBench((s) => s.recentFaces);
  const liked = useBench((s) => s.likedFaces);
  const kept = useBench((s) => s.ownFaces);
  const [query, setQuery] = useState('');
  const [kind, setKind] = useState<Shown>('all');
  const [at, setAt] = useState(0);
  /** A family that came just now stands first. */
  const [fresh, setFresh] = useState<string | null>(null);
  const users = useMemo(() => (value === null ? 0 : usersOf(design, value)), [design, value]);
  const [everywhere, setEverywhere] = useState(missing);
  const families = useMemo(() => {
    const ids = new Set(kept.map((f) => f.id));
    const brought = [...kept, ...(design.faces ?? []).filter((f) => !ids.has(f.id))];
    return [...familiesOf(brought, true), ...SHIPPED];
  }, [kept, design.faces]);
  const found = useMemo(() => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean);
    const rank = (f: Family): number => {
      if (f.own && f.name === fresh) return -2;
      if (f.faces.some((x) => x.id === value)) return -1;
      if (liked.includes(f.name)) return 0;
      return f.faces.some((x) => recent.includes(x.id)) ? 1 : f.own ? 2 : 3;
    };
    const shown = (f: Family) => kind === 'all' || (kind === 'own' ? f.own : f.faces[0].kind === kind);
    return families
      .filter((f) => shown(f) && words.every((w) => f.name.toLowerCase().includes(w)))
      .toSorted((a, b) => rank(a) - rank(b));
  }, [families, query, kind, recent, liked, value, fresh]);

  const choose = (face: string) => {
    onPreview(null);
    if (everywhere && value !== null && users > 1) replaceFaceEverywhere(session, value, face);
    else {
      onChoose(face);
      noteFace(session, face);
    }
    close();
  };
  /** The face of a family that is nearest to the one at hand. */
  const nearest = (f: Family): Family['faces'][number] => {
    const now = value ? faceIn(design, value) : undefined;
    const away = (x: FaceRow) =>
      (x.italic === (now?.italic ?? false) ? 0 : 10_000) + Math.abs(x.weight - (now?.weight ?? 400));
    return [...f.faces].sort((a, b) => away(a) - away(b))[0];
  };
  const add = async (file: File) => {
    const faces = await addFaces(session, file.name, new Uint8Array(await file.arrayBuffer()));
    if (!faces.length) return;
    setQuery('');
    setKind('all');
    setAt(0);
    setFresh(faces[0].family);
  };
  return (
    <>
      {missing && value !== null && (
        <p className="m-0 mb-2 rounded-sm border border-warn p-2 text-[12px]">
          {faceName(design, value)} is not here; another stands in, as like it as there is. Add its font file, or choose
          another face.
        </p>
      )}
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
                ...(families.some((f) => f.own) ? [{ value: 'own' as Shown, label: 'Yours' }] : []),
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
        className="max-h-[min(420px,calc(var(--radix-popover-content-available-height)-190px))] overflow-auto"
      >
        {found.map((f, i) => (
          <FamilyRow
            key={`${f.own ? 'own ' : ''}${f.name}`}
            id={`face-${i}`}
            family={f}
            current={i === at}
            value={value}
            sample={sample}
            first={nearest(f)}
            liked={liked.includes(f.name)}
            onLike={() => favourFace(session, f.name)}
            onForget={
              f.own && f.faces.every((x) => kept.some((k) => k.id === x.id))
                ? () =>
                    void forgetFaces(
                      session,
                      f.faces.map((x) => x.id),
                    )
                : null
            }
            onPreview={onPreview}
            onChoose={choose}
          />
        ))}
        {!found.length && <p className="m-0 p-2 text-faint">No face is called that.</p>}
      </div>
      {users > 1 && (
        <div className="mt-2">
          <Check
            label={`Change it everywhere it stands (${users} texts and looks)`}
            checked={everywhere}
            onChange={setEverywhere}
          />
        </div>
      )}
      <div className="mt-2 flex items-center gap-2">
        <FileButton
          word="Add a font file …"
          className="shrink-0 whitespace-nowrap"
          label="Font file"
          accept={FONT_FILES}
          onFile={(f) => void add(f)}
        />
        <p className="m-0 text-[12px] text-faint">
          Those that ship are free to print, sell and embed (SIL Open Font License).
        </p>
      </div>
    </>
  );
}

interface RowProps {
  readonly id: string;
  readonly family: Family;
  readonly current: boolean;
  readonly value: string | null;
  readonly sample: string;
  readonly first: Family['faces'][number];
  readonly liked: boolean;
  readonly onLike: () => void;
  /** Null where it is not in the list of this browser. */
  readonly onForget: (() => void) | null;
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
          onPointerEnter={() => p.onPreview(p.first.id)}
          onClick={() => p.onChoose(p.first.id)}
        >
          <span
            className={`block truncate text-[22px] leading-7 ${there ? '' : 'opacity-0'}`}
            style={{ fontFamily: cssFace(p.first.id) }}
          >
            {p.sample}
          </span>
          <span className={`text-[12px] ${chosen ? 'font-semibold text-accent' : 'text-faint'}`}>
            {family.name}
            {family.own && ' · yours'}
          </span>
        </button>
      </div>
      <div role="gridcell">
        {p.onForget && (
          <button
            type="button"
            tabIndex={-1}
            aria-label={`${family.name}: take out of the list`}
            className="cursor-pointer border-0 bg-transparent p-1 text-faint"
            onClick={p.onForget}
          >
            <Trash2 size={15} aria-hidden />
          </button>
        )}
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
