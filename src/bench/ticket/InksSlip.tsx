'use client';
import { hexOf } from '@/core/colour/spaces';
import { PROFILES } from '@/core/model/defaults';
import { usedChannels } from '@/core/scene/used';
import { formatLength } from '@/core/units/length';
import { ListChoice } from '@/ui/Choice';
import { Button } from '@/ui/Button';
import { NumberField } from '@/ui/NumberField';
import { useBench, useSession } from '../session/context';

/** The inks of the job, the paper they go on, and how much of them it bears. Each ink can be shown alone. */
export function InksSlip() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const totalInk = useBench((s) => s.totalInk);
  const shown = useBench((s) => s.shownInks);
  const { palette } = session;
  const used = new Set(usedChannels(session.restingScene(design), palette));
  const { unit } = design.setup;
  const toggle = (ink: string) => {
    const now = new Set(shown ?? palette.channels);
    if (now.has(ink)) now.delete(ink);
    else now.add(ink);
    session.set({ view: 'plates', shownInks: now.size === palette.channels.length ? null : now });
  };
  const paper = async (file: string) => {
    const row = PROFILES.find((p) => p.file === file);
    if (!row) return;
    try {
      await session.shop.room.prepare(file);
    } catch (e) {
      session.say(e instanceof Error ? e.message : String(e), 'stop');
      return;
    }
    session.commit(`Paper: ${row.name.toLowerCase()}`, (d) => {
      d.profile.file = row.file;
      d.profile.totalInkLimit = row.totalInkLimit;
    });
  };
  return (
    <div className="grid gap-3">
      <ul className="m-0 list-none p-0">
        {palette.channels.map((ink, i) => {
          const on = !shown || shown.has(ink);
          return (
            <li key={ink} className="flex items-center gap-2 border-b border-line py-1">
              <label className="flex min-w-0 flex-1 items-center gap-2 whitespace-nowrap">
                <input type="checkbox" className="size-4 accent-(--accent)" checked={on} onChange={() => toggle(ink)} />
                <span aria-hidden className="size-4 rounded-sm border border-edge" style={{ background: hexOf(palette.lookOfMix(palette.channels.map((_, j) => (i === j ? 1 : 0)))) }} />
                {ink}
                {i >= 4 && <span className="text-faint">spot</span>}
              </label>
              <span className="text-[12px] text-faint">{used.has(i) ? 'in use' : 'not in use'}</span>
              <Button kind="quiet" onClick={() => session.set({ view: 'plates', shownInks: new Set([ink]) })} aria-label={`Show only ${ink}`}>
                Alone
              </Button>
            </li>
          );
        })}
      </ul>
      <div className="flex gap-2">
        <Button onClick={() => session.set({ view: 'plates', shownInks: null })}>Show all plates</Button>
        <Button onClick={() => session.set({ view: 'work', shownInks: null })}>Back to work</Button>
      </div>
      <ListChoice label="Paper" value={design.profile.file} groups={[{ name: '', options: PROFILES.map((p) => ({ value: p.file as string, label: `${p.name} (${p.source.replace('characterization data of ', '').replace('characterization data ', '')})` })) }]} onChange={(f) => void paper(f)} />
      <NumberField label="Most ink the paper bears" suffix="%" min={50} max={400} decimals={0} value={design.profile.totalInkLimit * 100} onCommit={(v) => session.commit('Ink limit', (d) => void (d.profile.totalInkLimit = v / 100))} />
      {totalInk && (
        <p className="m-0 text-faint">
          Fullest point of this page: {Math.round(totalInk.total * 100)} % at {formatLength(totalInk.x, unit, 0)}, {formatLength(totalInk.y, unit, 0)}.
        </p>
      )}
    </div>
  );
}
