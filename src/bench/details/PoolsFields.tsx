'use client';
import { Plus, X } from 'lucide-react';
import { addPool, changePool, removePool } from '@/core/edit/pools';
import type { Aim } from '@/core/edit/aims';
import type { PoolsPaint } from '@/core/model/schema';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { useBench, useSession } from '../session/context';
import { colourName } from '../session/naming';
import type { PoolsTarget } from '../tools/gradientTarget';
import { withPools } from '../tools/pools';

/** The pools of an object: choose one, give it a colour, say how far it reaches and how much shows through. */
export function PoolsFields({ aim, target, here }: { aim: Aim; target: PoolsTarget; here: boolean }) {
  const session = useSession();
  const stop = useBench((s) => s.stop);
  const { design, palette } = session;
  const { pools } = target.paint;
  const index = here && stop !== null && pools[stop] ? stop : null;
  const pool = index === null ? null : pools[index];
  const commit = (label: string, change: (p: PoolsPaint) => PoolsPaint) =>
    session.commit(label, withPools(target, change));
  const preview = (change: ((p: PoolsPaint) => PoolsPaint) | null) =>
    session.preview(change && withPools(target, change));
  return (
    <>
      <div className="flex flex-wrap gap-1.5" role="radiogroup" aria-label="Pools">
        {pools.map((p, i) => (
          <button
            key={i}
            type="button"
            role="radio"
            aria-checked={index === i}
            aria-label={`Pool ${i + 1} of ${pools.length}, ${colourName(design, p.colour)}`}
            title={colourName(design, p.colour)}
            className={`size-7 rounded-full border-2 ${index === i ? 'border-accent outline-2 outline-accent' : 'border-edge'}`}
            style={{ background: palette.css(p.colour) }}
            onClick={() => session.aimAt(aim, i)}
          />
        ))}
        <Button
          aria-label="Add a pool"
          title="Add a pool in the middle"
          disabled={pools.length >= 32}
          onClick={() => {
            commit('Add a pool', (p) => addPool(p, 0.5, 0.5, (pool ?? pools[0]).colour).paint);
            session.set({ aim, stop: pools.length });
          }}
        >
          <Plus size={14} aria-hidden />
        </Button>
      </div>
      {pool && index !== null ? (
        <div className="grid grid-cols-2 gap-2">
          <p title={colourName(design, pool.colour)} className="col-span-2 m-0 truncate text-faint">
            Pool {index + 1}: {colourName(design, pool.colour)}
          </p>
          <NumberField
            label="Reach"
            suffix="%"
            value={pool.reach * 100}
            min={2}
            max={400}
            decimals={0}
            onPreview={(v) => preview(v === null ? null : (p) => changePool(p, index, { reach: v / 100 }))}
            onCommit={(v) => commit('Reach of a pool', (p) => changePool(p, index, { reach: v / 100 }))}
          />
          <NumberField
            label="Opacity"
            name="Opacity of the pool"
            suffix="%"
            value={(pool.opacity ?? 1) * 100}
            min={0}
            max={100}
            decimals={0}
            onPreview={(v) => preview(v === null ? null : (p) => changePool(p, index, { opacity: v / 100 }))}
            onCommit={(v) => commit('Opacity of a pool', (p) => changePool(p, index, { opacity: v / 100 }))}
          />
          <NumberField
            label="Across"
            name="Place across"
            suffix="%"
            value={pool.x * 100}
            min={-400}
            max={500}
            decimals={0}
            onCommit={(v) => commit('Move a pool', (p) => changePool(p, index, { x: v / 100 }))}
          />
          <NumberField
            label="Down"
            name="Place down"
            suffix="%"
            value={pool.y * 100}
            min={-400}
            max={500}
            decimals={0}
            onCommit={(v) => commit('Move a pool', (p) => changePool(p, index, { y: v / 100 }))}
          />
          {pools.length > 1 && (
            <Button
              className="col-span-2"
              onClick={() => {
                commit('Take out a pool', (p) => removePool(p, index));
                session.set({ stop: null });
              }}
            >
              <X size={14} aria-hidden /> Take this pool out
            </Button>
          )}
        </div>
      ) : (
        <p className="m-0 text-faint">
          Choose a pool, then click a colour for it. The Gradient tool drags pools on the object and adds more by a
          click.
        </p>
      )}
    </>
  );
}
