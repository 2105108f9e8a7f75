'use client';
import { useState } from 'react';
import { LIMIT_SETS, limitsOf, readLimits, writeLimits } from '@/core/check/limits';
import { setLimits } from '@/core/edit/checks';
import type { Limits } from '@/core/model/checksSchema';
import { Button } from '@/ui/Button';
import { ListChoice } from '@/ui/Choice';
import { download } from '@/ui/download';
import { fileName } from '@/core/output/fileName';
import { FileButton } from '@/ui/FileButton';
import { NumberField } from '@/ui/NumberField';
import { keepLimitSet } from '../session/settings';
import { useBench, useSession } from '../session/context';

type Sizes = Exclude<keyof Limits, 'name'>;
type As = 'pt' | 'mm' | 'ppi' | '';
interface Field {
  readonly key: Sizes;
  readonly label: string;
  /** What is spoken of it. */
  readonly name: string;
  readonly as: As;
}
const FIELDS: readonly { readonly of: string; readonly fields: readonly Field[] }[] = [
  {
    of: 'Words',
    fields: [
      { key: 'safe', label: 'Off the cut', name: 'Words stay off the cut by', as: 'mm' },
      { key: 'text', label: 'Smallest', name: 'Smallest letters', as: 'pt' },
      { key: 'mixedText', label: 'In more inks', name: 'Smallest letters in more than one ink', as: 'pt' },
      { key: 'freeText', label: 'Free of ink', name: 'Smallest letters left free of ink', as: 'pt' },
      { key: 'richText', label: 'Mixed black', name: 'Smallest letters in a mixed black', as: 'pt' },
    ],
  },
  {
    of: 'Lines',
    fields: [
      { key: 'line', label: 'Thinnest', name: 'Thinnest line', as: 'pt' },
      { key: 'freeLine', label: 'Free of ink', name: 'Thinnest line left free of ink', as: 'pt' },
    ],
  },
  {
    of: 'Pictures',
    fields: [
      { key: 'softPpi', label: 'Soft under', name: 'Pictures are soft under', as: 'ppi' },
      { key: 'coarsePpi', label: 'Coarse under', name: 'Pictures are coarse under', as: 'ppi' },
      { key: 'mostPpi', label: 'No use over', name: 'Pixels are no use over', as: 'ppi' },
    ],
  },
  {
    of: 'Inks',
    fields: [
      { key: 'inks', label: 'At most', name: 'Inks at most', as: '' },
      { key: 'spots', label: 'Spots', name: 'Spot inks at most', as: '' },
    ],
  },
];

/** What the job is held against: a named set, changed by field, kept under a name, given on as a file. */
export function LimitsFields() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const own = useBench((s) => s.limitSets);
  const readOnly = useBench((s) => s.readOnly);
  const [open, setOpen] = useState(false);
  if (design.setup.medium === 'screen') return null;
  const now = limitsOf(design);
  const byPaper = !design.checks?.limits;
  const put = (limits: Limits | null, word: string) => session.commit(word, (d) => setLimits(d, limits));
  const sets = [...LIMIT_SETS, ...own.filter((o) => LIMIT_SETS.every((s) => s.name !== o.name))];
  const kept = sets.some((s) => s.name === now.name);
  const take = async (f: File) => {
    const read = readLimits(await f.text());
    if (!read.ok) {
      session.say(`${f.name} holds no limits: ${read.message}`, 'stop');
      return;
    }
    keepLimitSet(session, read.limits);
    put(read.limits, `Limits: ${read.limits.name}`);
  };
  return (
    <div className="grid gap-2">
      <ListChoice
        label="Held against"
        value={byPaper ? 'paper' : now.name}
        disabled={readOnly}
        groups={[
          {
            name: '',
            options: [
              {
                value: 'paper',
                label: `As the paper asks (${byPaper ? now.name : limitsOf({ profile: design.profile }).name})`,
              },
              ...(kept ? [] : [{ value: now.name, label: now.name }]),
              ...sets.map((s) => ({ value: s.name, label: s.name })),
            ],
          },
        ]}
        onChange={(name) => {
          const set = sets.find((s) => s.name === name);
          if (name === 'paper') put(null, 'Limits of the paper');
          else if (set) put(set, `Limits: ${set.name}`);
        }}
      />
      <button
        type="button"
        aria-expanded={open}
        className="w-fit cursor-pointer border-0 bg-transparent p-0 text-faint underline decoration-accent underline-offset-4 hover:text-text"
        onClick={() => setOpen(!open)}
      >
        {open ? 'Fold the limits' : 'See and change the limits'}
      </button>
      {open && (
        <>
          {FIELDS.map(({ of, fields }) => (
            <fieldset key={of} className="m-0 grid grid-cols-2 gap-2 border-0 p-0">
              <legend className="mb-1 p-0 text-faint">{of}</legend>
              {fields.map(({ key, label, name, as }) => (
                <NumberField
                  key={key}
                  label={label}
                  name={name}
                  value={now[key]}
                  min={as === 'ppi' ? 1 : 0}
                  max={as === 'ppi' ? 10_000 : as === '' ? 40 : 1000}
                  decimals={as === 'pt' || as === 'mm' ? 2 : 0}
                  disabled={readOnly}
                  {...(as === 'pt' || as === 'mm' ? { unit: as } : as ? { suffix: ` ${as}` } : {})}
                  onCommit={(v) =>
                    put(
                      { ...now, [key]: as === '' || as === 'ppi' ? Math.round(v) : v, name: ownName(now.name) },
                      'Change the limits',
                    )
                  }
                />
              ))}
            </fieldset>
          ))}
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => keepLimitSet(session, now)}>Keep “{now.name}”</Button>
            <Button
              onClick={() =>
                download(
                  new TextEncoder().encode(writeLimits(now)),
                  fileName(now.name, 'limits.json'),
                  'application/json',
                )
              }
            >
              Save as a file
            </Button>
            <FileButton
              word="Open a file"
              label="Open limits"
              accept=".json,application/json"
              onFile={(f) => void take(f)}
            />
          </div>
        </>
      )}
    </div>
  );
}

/** A set that is changed is no more the one that ships. */
const ownName = (name: string): string => (LIMIT_SETS.some((s) => s.name === name) ? `${name}, own` : name);
