'use client';
import { setGround } from '@/core/edit/masters';
import { groundPicture, groundTile, groundTiles, withGroundTile } from '@/core/edit/groundPicture';
import { LEAST_TILE, withTone } from '@/core/edit/picture';
import type { PicturePaint } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { WordChoice } from '@/ui/Choice';
import { NumberField } from '@/ui/NumberField';
import { PlainSlider } from '@/ui/PlainSlider';
import { usePlacedDesign, useSession } from '../session/context';

type Lies = 'fill' | 'fit' | 'repeat' | 'mirror';

/** The picture on the ground: how it lies there, and how far it fades into the paper. */
export function GroundPicture({ sheet, paint }: { sheet: string; paint: PicturePaint }) {
  const session = useSession();
  const design = usePlacedDesign();
  const { setup } = session;
  const picture = design.pictures?.find((p) => p.id === paint.picture);
  if (!picture) return null;
  const put = (next: PicturePaint) => (d: Parameters<typeof setGround>[0]) => setGround(d, sheet, next);
  const show = (make: (v: number) => PicturePaint) => (v: number | null) =>
    session.preview(v === null ? null : put(make(v)));
  const fitting = groundPicture(picture, setup, 'fit', paint).geometry;
  const same = fitting.every((v, i) => Math.abs(v - paint.geometry[i]) < 1e-6);
  const lies: Lies = paint.tile ?? (same ? 'fit' : 'fill');
  const tile = groundTile(paint, setup);
  const sized = (width: number) => withGroundTile(picture, paint, setup, { width });
  const faded = (fade: number) => withTone(paint, { fade });
  return (
    <>
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate" title={picture.name}>
          {picture.name}
        </span>
        <Button
          onClick={() => {
            session.aimAt('ground');
            session.set({ pictureChooser: true });
          }}
        >
          Another one
        </Button>
      </div>
      <WordChoice<Lies>
        label="How the picture lies"
        tight
        value={lies}
        options={[
          { value: 'fill', label: 'Fill' },
          { value: 'fit', label: 'Fit' },
          { value: 'repeat', label: 'Tiles' },
          { value: 'mirror', label: 'Mirrored' },
        ]}
        onChange={(next) =>
          session.commit(
            'How the picture lies',
            put(
              next === 'fill' || next === 'fit'
                ? groundPicture(picture, setup, next, paint)
                : paint.tile
                  ? { ...paint, tile: next }
                  : groundTiles(picture, setup, next, paint),
            ),
          )
        }
      />
      {paint.tile && (
        <NumberField
          label="Tile"
          name="Width of a tile of the ground"
          unit={setup.unit}
          min={LEAST_TILE}
          max={setup.width * 4}
          value={tile.width}
          onPreview={show(sized)}
          onCommit={(v) => session.commit('Width of a tile', put(sized(v)))}
        />
      )}
      <PlainSlider
        label="Fade of the ground"
        ends={['as it is', 'paper']}
        value={(paint.tone?.fade ?? 0) * 100}
        min={0}
        max={100}
        step={1}
        says={(v) => `${Math.round(v)} %`}
        onPreview={show((v) => faded(v / 100))}
        onCommit={(v) => session.commit('Fade the ground', put(faded(v / 100)))}
      />
    </>
  );
}
