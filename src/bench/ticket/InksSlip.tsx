'use client';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { readOutputProfile } from '@/core/colour/profile';
import { hexOf } from '@/core/colour/spaces';
import { moveInk, setInk } from '@/core/edit/swatches';
import { assetName } from '@/core/file/assets';
import { PROFILES } from '@/core/model/defaults';
import type { Ink } from '@/core/model/schema';
import { usedChannels } from '@/core/scene/used';
import { SMALL_BLACK, WIDEST_TRAP } from '@/core/model/platesSchema';
import { formatLength, formatNumber, mm } from '@/core/units/length';
import { ListChoice } from '@/ui/Choice';
import { Button } from '@/ui/Button';
import { FileButton } from '@/ui/FileButton';
import { NumberField } from '@/ui/NumberField';
import { storageProblem } from '@/store/open';
import { comesLater } from '../session/comesLater';
import { useBench, useSession } from '../session/context';
import { inksShown } from '../session/state';

const Coverage = comesLater(
  () => import('./Coverage').then((m) => m.Coverage),
  () => <p className="m-0 text-faint">Measuring …</p>,
);

/** Ink that a paper whose makers gave no limit is taken to bear (common practice for coated sheets). */
const USUAL_LIMIT = 3;

/** The inks of the job in the order of printing, the paper they go on, and how much of them it bears. */
export function InksSlip() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const totalInk = useBench((s) => s.totalInk);
  const shown = useBench(inksShown);
  const palette = session.palettes.get(design);
  const used = new Set(usedChannels(session.restingScene(design), palette));
  const { unit } = design.setup;
  const toggle = (ink: string) => {
    const now = new Set(shown ?? palette.channels);
    if (now.has(ink)) now.delete(ink);
    else now.add(ink);
    session.set({ view: 'plates', shownInks: now.size === palette.channels.length ? null : now });
  };
  return (
    <div className="grid gap-3">
      <ul className="m-0 list-none p-0">
        {palette.channels.map((ink, i) => (
          <li key={ink} className="border-b border-line py-1">
            <div className="flex items-center gap-2">
              <label className="flex min-w-0 flex-1 items-center gap-2 whitespace-nowrap">
                <input
                  type="checkbox"
                  className="size-4 accent-(--accent)"
                  checked={!shown || shown.has(ink)}
                  onChange={() => toggle(ink)}
                />
                <span
                  aria-hidden
                  className="size-4 rounded-sm border border-edge"
                  style={{ background: hexOf(palette.lookOfMix(palette.channels.map((_, j) => (i === j ? 1 : 0)))) }}
                />
                <span title={ink} className="truncate">
                  {ink}
                </span>
                {i >= 4 && <span className="text-faint">spot</span>}
              </label>
              <span className="text-[12px] text-faint">{used.has(i) ? 'in use' : 'not in use'}</span>
              <Button
                kind="quiet"
                onClick={() => session.set({ view: 'plates', shownInks: new Set([ink]) })}
                aria-label={`Show only ${ink}`}
              >
                Alone
              </Button>
            </div>
            {i >= 4 && <SpotRow ink={palette.inks[i - 4]} />}
          </li>
        ))}
        {design.inks
          .filter((ink) => ink.asStandIn)
          .map((ink) => (
            <li key={ink.id} className="border-b border-line py-1">
              <div className="flex items-center gap-2">
                <span
                  aria-hidden
                  className="ml-6 size-4 rounded-sm border border-edge"
                  style={{ background: palette.css({ ink: ink.id, tint: 1 }) }}
                />
                <span title={ink.name} className="min-w-0 flex-1 truncate">
                  {ink.name}
                </span>
                <span className="text-[12px] text-faint">no plate</span>
              </div>
              <SpotRow ink={ink} />
            </li>
          ))}
      </ul>
      <div className="flex gap-2">
        <Button onClick={() => session.set({ view: 'plates', shownInks: null })}>Show all plates</Button>
        <Button onClick={() => session.set({ view: 'work', shownInks: null })}>Back to work</Button>
      </div>
      <Paper />
      <NumberField
        label="Most ink the paper bears"
        suffix="%"
        min={50}
        max={400}
        decimals={0}
        value={design.profile.totalInkLimit * 100}
        onCommit={(v) => session.commit('Ink limit', (d) => void (d.profile.totalInkLimit = v / 100))}
      />
      <Coverage />
      {totalInk && (
        <p className="m-0 text-faint">
          Fullest point of this page: {Math.round(totalInk.total * 100)} % at {formatLength(totalInk.x, unit, 0)},{' '}
          {formatLength(totalInk.y, unit, 0)}.
        </p>
      )}
      <PlatesMade />
    </div>
  );
}

/** How plates are made from the art: small black laid over what is below, and inks that abut laid over each other. */
function PlatesMade() {
  const session = useSession();
  const plates = useBench((s) => s.design.plates);
  const put = (label: string, change: NonNullable<typeof plates>) =>
    session.commit(label, (d) => {
      const next = { ...d.plates, ...change };
      if (!next.trap) delete next.trap;
      if (next.smallBlack === undefined) delete next.smallBlack;
      if (Object.keys(next).length) d.plates = next;
      else delete d.plates;
    });
  const trap = plates?.trap ?? 0;
  return (
    <div className="grid gap-2 border-t border-line pt-2">
      <NumberField
        label="Inks that meet overlap by"
        name="Inks that meet overlap by (trap)"
        unit="mm"
        min={0}
        max={WIDEST_TRAP}
        decimals={2}
        step={mm(0.05)}
        value={trap}
        onCommit={(v) => put(v > 0 ? `Overlap of inks: ${formatLength(v, 'mm')}` : 'No overlap of inks', { trap: v })}
      />
      <p className="m-0 text-[12px] text-faint">
        {trap > 0
          ? 'The lighter ink runs so far under the darker one, so that no paper shows where plates lie aside. Plates, Look closer, Overlaps points them out.'
          : 'Where plates lie a hair aside, paper can show between two inks. Printers often ask for 0.08 to 0.2 mm, or do it themselves: ask yours.'}
      </p>
      <NumberField
        label="Black letters print over, below"
        name="Black letters print over what is below them, when smaller than"
        suffix=" pt"
        min={0}
        max={1000}
        decimals={1}
        value={plates?.smallBlack ?? SMALL_BLACK}
        onCommit={(v) => put('Small black', { smallBlack: v === SMALL_BLACK ? undefined : v })}
      />
    </div>
  );
}

/** How one spot ink is printed. */
function SpotRow({ ink }: { ink: Ink }) {
  const session = useSession();
  const { inks } = session.design;
  const at = inks.findIndex((i) => i.id === ink.id);
  const off = session.palette.standInDistance(ink);
  const put = (label: string, change: Parameters<typeof setInk>[2]) =>
    session.commit(label, (d) => setInk(d, ink.id, change));
  const option = (label: string, checked: boolean, onChange: (on: boolean) => void, hint: string) => (
    <label className="flex items-center gap-1" title={hint}>
      <input
        type="checkbox"
        className="size-3.5 accent-(--accent)"
        checked={checked}
        aria-label={`${ink.name}: ${label}`}
        onChange={(e) => onChange(e.target.checked)}
      />
      {label}
    </label>
  );
  return (
    <div className="mt-0.5 ml-6 flex flex-wrap items-center gap-x-3 gap-y-1 text-[12px]">
      {option(
        'as its stand-in',
        ink.asStandIn === true,
        (on) => put(on ? `${ink.name} as its stand-in` : `${ink.name} from its tin`, { asStandIn: on }),
        `No plate of its own: ${ink.alternate.map((v) => Math.round(v * 100)).join(' ')} instead, ΔE00 ${formatNumber(off, 1)} away`,
      )}
      {option(
        'opaque',
        ink.opaque === true,
        (on) => put(on ? `${ink.name} opaque` : `${ink.name} transparent`, { opaque: on }),
        'Hides what is printed before it, as white and metal do',
      )}
      {option(
        'overprints',
        ink.overprints === true,
        (on) => put(on ? `${ink.name} overprints` : `${ink.name} knocks out`, { overprints: on }),
        'What is given this ink from now on overprints',
      )}
      <span className="ml-auto flex">
        <button
          type="button"
          className="grid size-6 place-items-center rounded-sm border-0 bg-transparent hover:bg-line disabled:opacity-35"
          disabled={at <= 0}
          aria-label={`Print ${ink.name} earlier`}
          title="Print earlier"
          onClick={() => session.commit('Order of inks', (d) => moveInk(d, ink.id, -1))}
        >
          <ArrowUp size={13} aria-hidden />
        </button>
        <button
          type="button"
          className="grid size-6 place-items-center rounded-sm border-0 bg-transparent hover:bg-line disabled:opacity-35"
          disabled={at >= inks.length - 1}
          aria-label={`Print ${ink.name} later`}
          title="Print later"
          onClick={() => session.commit('Order of inks', (d) => moveInk(d, ink.id, 1))}
        >
          <ArrowDown size={13} aria-hidden />
        </button>
      </span>
    </div>
  );
}

/** The paper: a shipped profile or one's own. Recipes stay as they are; looks follow the paper. */
function Paper() {
  const session = useSession();
  const { profile } = useBench((s) => s.design);
  const own = !PROFILES.some((p) => p.file === profile.file);
  const change = async (to: { file: string; name?: string; totalInkLimit: number }, word: string) => {
    try {
      await session.engines.room.prepare(to.file);
    } catch (e) {
      session.say(e instanceof Error ? e.message : String(e), 'stop');
      return;
    }
    session.commit(`Paper: ${word}`, (d) => {
      d.profile = to;
    });
    session.say(`Colours are shown as on ${word} now; no recipe has changed.`);
  };
  const open = async (f: File) => {
    const bytes = new Uint8Array(await f.arrayBuffer());
    const read = readOutputProfile(bytes);
    if (!read.ok) {
      session.say(`${f.name} cannot be the paper: ${read.message}`, 'stop');
      return;
    }
    const name = await assetName(bytes, 'icc');
    try {
      await session.designs.addAsset(name, bytes);
    } catch (e) {
      session.say(`${f.name} could not be kept: ${storageProblem(e)}`, 'stop');
      return;
    }
    await change({ file: name, name: read.name, totalInkLimit: USUAL_LIMIT }, read.name);
  };
  return (
    <div className="flex gap-2">
      <div className="min-w-0 flex-1">
        <ListChoice
          label="Paper"
          value={profile.file}
          groups={[
            {
              name: '',
              options: [
                ...PROFILES.map((p) => ({
                  value: p.file as string,
                  label: `${p.name} (${p.source.replace('characterization data of ', '').replace('characterization data ', '')})`,
                })),
                ...(own ? [{ value: profile.file, label: profile.name ?? 'Own profile' }] : []),
              ],
            },
          ]}
          onChange={(f) => {
            const row = PROFILES.find((p) => p.file === f);
            if (row) void change({ file: row.file, totalInkLimit: row.totalInkLimit }, row.name.toLowerCase());
          }}
        />
      </div>
      <FileButton
        word="Open a profile"
        label="Open an output profile"
        accept=".icc,.icm"
        onFile={(f) => void open(f)}
      />
    </div>
  );
}
