'use client';
import { aimedNodes, type Aim } from '@/core/edit/aims';
import { localBox } from '@/core/derive/box';
import {
  effectivePpi,
  fitted,
  LEAST_TILE,
  naturalSize,
  setPicture,
  tileGeometry,
  tileOf,
  type Fit,
} from '@/core/edit/picture';
import type { Recipe } from '@/core/edit/history';
import { determinant, multiply } from '@/core/geometry/matrix';
import type { Paint, PicturePaint } from '@/core/model/schema';
import { pageMatrix } from '@/core/model/tree';
import { formatNumber } from '@/core/units/length';
import { Button } from '@/ui/Button';
import { WordChoice } from '@/ui/Choice';
import { FileButton } from '@/ui/FileButton';
import { NumberField } from '@/ui/NumberField';
import { useBench, useSession } from '../session/context';
import { beginCrop, endCrop } from '../tools/cropping';
import { PICTURE_FILES, relink, replacePicture } from '../commands/pictures';
import { PicturePreview } from './PicturePreview';
import { ToneFields } from './ToneFields';

const FIT_WORDS: readonly { readonly fit: Fit; readonly label: string; readonly title: string }[] = [
  { fit: 'fill', label: 'Fill', title: 'Cover the frame in proportion' },
  { fit: 'fit', label: 'Fit', title: 'Lie inside the frame in proportion' },
  { fit: 'centre', label: 'Middle', title: 'The picture’s own size, in the middle' },
  { fit: 'stretch', label: 'Stretch', title: 'Take the frame’s proportions' },
];
const TILES = [
  { value: 'once', label: 'Once' },
  { value: 'repeat', label: 'Tiles' },
  { value: 'mirror', label: 'Mirrored' },
] as const;
type TileWord = (typeof TILES)[number]['value'];

/** The picture that a part of the selection is painted with. */
export function PictureFields({
  aim,
  ids,
  node,
  paint,
}: {
  aim: Aim;
  ids: readonly string[];
  node: string;
  paint: PicturePaint;
}) {
  const session = useSession();
  const crop = useBench((s) => s.crop);
  useBench((s) => s.picturesEpoch);
  const missing = useBench((s) => s.findings).some((f) => f.code === 'picture.missing' && f.node === node);
  const { design, page } = session;
  const picture = design.pictures?.find((p) => p.id === paint.picture);
  if (!picture || !design.nodes[node]) return null;
  const all = aimedNodes(design, ids, aim);
  const change =
    (f: (p: PicturePaint, id: string) => Paint): Recipe =>
    (d) =>
      setPicture(d, all, aim, f);
  const ppi = effectivePpi(picture, paint, pageMatrix(design, page, node));
  const box = (id: string) => localBox(design, design.nodes[id], session.engines.fonts);
  const natural = naturalSize(picture);
  const tile = tileOf(paint.geometry);
  const { unit } = design.setup;
  const low = !session.palette.screen && ppi < 224.5;

  const become = (word: TileWord) =>
    session.commit(
      'Tiles',
      change((p, id) => {
        const { tile: had, ...rest } = p;
        if (word === 'once') return { ...rest, geometry: fitted(picture, box(id), 'fill') };
        if (had) return { ...rest, tile: word };
        return {
          ...rest,
          tile: word,
          geometry: tileGeometry(
            picture,
            { width: natural.width, x: box(id).x0, y: box(id).y0, turn: 0 },
            [1, 0, 0, 1, 0, 0],
          ),
        };
      }),
    );
  /** Shows and commits a change of the tile. */
  const tiled = (label: string, next: (v: number) => Partial<typeof tile>) => {
    const recipe = (v: number) =>
      change((p) => ({ ...p, geometry: tileGeometry(picture, { ...tileOf(p.geometry), ...next(v) }, p.geometry) }));
    return {
      onPreview: (v: number | null) => session.preview(v === null ? null : recipe(v)),
      onCommit: (v: number) => session.commit(label, recipe(v)),
    };
  };
  return (
    <>
      <PicturePreview paint={paint} />
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1">
          <span className="block truncate" title={picture.name}>
            {picture.name}
          </span>
          <span className={`block text-[12px] ${low ? 'text-warn' : 'text-faint'}`} data-testid="effective-ppi">
            {picture.width} × {picture.height} px
            {session.palette.screen ? '' : `, ${formatNumber(ppi, 0)} ppi here${low ? ': soft' : ''}`}
          </span>
        </span>
      </div>
      {missing && (
        <p role="alert" className="m-0 text-stop">
          Its file is not here. Relink it to say where it is.
        </p>
      )}
      <div className="flex flex-wrap gap-1.5">
        {!paint.tile && (
          <Button
            aria-pressed={crop?.node === node}
            onClick={() => (crop ? endCrop(session) : beginCrop(session, node, aim))}
          >
            {crop?.node === node ? 'Done' : 'Crop'}
          </Button>
        )}
        <FileButton
          word="Replace"
          label="Replace the picture"
          accept={PICTURE_FILES}
          onFile={(f) => void replacePicture(session, ids, aim, f)}
        />
        {missing && (
          <FileButton
            word="Relink"
            label="Relink the picture"
            accept={PICTURE_FILES}
            onFile={(f) => void relink(session, picture.id, f)}
          />
        )}
        <Button title="Choose from the picture drawer" onClick={() => session.set({ aim, pictureChooser: true })}>
          Drawer
        </Button>
      </div>
      <WordChoice label="Laid" value={paint.tile ?? 'once'} options={TILES} onChange={become} />
      {paint.tile ? (
        <div className="grid grid-cols-2 gap-2">
          <NumberField
            label="Size"
            name="Tile size"
            suffix="%"
            min={0.1}
            max={10_000}
            decimals={1}
            value={(tile.width / natural.width) * 100}
            {...tiled('Tile size', (v) => ({ width: (v / 100) * natural.width }))}
          />
          <NumberField
            label="Wide"
            name="Tile width"
            unit={unit}
            min={LEAST_TILE}
            value={tile.width}
            {...tiled('Tile size', (v) => ({ width: v }))}
          />
          <NumberField
            label="Across"
            name="Tile offset across"
            unit={unit}
            value={tile.x}
            {...tiled('Tile offset', (v) => ({ x: v }))}
          />
          <NumberField
            label="Down"
            name="Tile offset down"
            unit={unit}
            value={tile.y}
            {...tiled('Tile offset', (v) => ({ y: v }))}
          />
          <NumberField
            label="Turn"
            name="Tile turn"
            suffix="°"
            decimals={1}
            value={tile.turn}
            {...tiled('Turn the tiles', (v) => ({ turn: v }))}
          />
          <Button
            aria-pressed={determinant(paint.geometry) < 0}
            onClick={() =>
              session.commit(
                'Flip the tiles',
                change((p) => ({ ...p, geometry: multiply(p.geometry, [1, 0, 0, -1, 0, 1]) })),
              )
            }
          >
            Flip
          </Button>
        </div>
      ) : (
        <div className="flex gap-1.5" role="group" aria-label="Lay the picture into its frame">
          {FIT_WORDS.map(({ fit, label, title }) => (
            <Button
              key={fit}
              className="min-w-0 flex-1 px-1"
              title={title}
              onClick={() =>
                session.commit(
                  `${label} the frame`,
                  change((p, id) => ({ ...p, geometry: fitted(picture, box(id), fit) })),
                )
              }
            >
              {label}
            </Button>
          ))}
        </div>
      )}
      <ToneFields paint={paint} change={change} />
    </>
  );
}
