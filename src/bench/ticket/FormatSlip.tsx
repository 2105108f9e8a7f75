'use client';
import { useState } from 'react';
import { fitPageTo, fitSheets } from '@/core/edit/refit';
import { tryOut, type DesignDraft } from '@/core/edit/history';
import type { Design, Grid, Page, Setup } from '@/core/model/schema';
import { setupOn } from '@/core/model/setupOn';
import { isMaster, mastersOf, pageById, sheetsOf } from '@/core/model/tree';
import { changeSetup, setEndAtFold, setFacing } from '@/core/edit/pages';
import { ofOtherFormat, setFormat, setGrid } from '@/core/edit/sheetSetup';
import { Button } from '@/ui/Button';
import { Check, ListChoice } from '@/ui/Choice';
import { PageSetup } from '@/ui/PageSetup';
import { runCommand } from '../commands/commands';
import { fitPage } from '../view/inSight';
import { count } from '../session/commandDef';
import { useBench, useSession } from '../session/context';
import { sheetName } from '../session/naming';
import type { Session } from '../session/session';

type Facing = 'alone' | 'left' | 'right';
/** Whose set-up is changed: that of the design, or of one sheet, by its id. */
type For = 'design' | (string & {});

/** After a change of the format: what lies on the sheets can be fitted to it, in one step. */
function offerFit(s: Session, was: Design, sheets: readonly Page[], fit: (d: DesignDraft) => void): void {
  if (!sheets.some((p) => p.children.length)) return;
  s.say('The sheet has another size now; what lies on it stayed as it was.', 'plain', {
    label: 'Fit it too',
    run: () => {
      // What was done meanwhile would be lost.
      if (s.state.design.nodes !== was.nodes)
        return s.say('Something was changed since: undo it, or fit it by hand.', 'warn');
      s.commit('Fit to the format', fit);
      s.say(
        'Fitted: edges at the edges, the middle in the middle, words as large as the sheet. Checks say what to look at.',
      );
    },
  });
}

const gridOf = ({ margins, columns, baseline }: Setup): Grid => ({ margins, columns, ...(baseline && { baseline }) });
const sameGrid = (a: Setup, b: Setup): boolean => JSON.stringify(gridOf(a)) === JSON.stringify(gridOf(b));
const sameSize = (a: Setup, b: Setup): boolean => a.width === b.width && a.height === b.height && a.round === b.round;

/** Gives the design, a master or a page another set-up. */
function change(s: Session, whose: For, setup: Setup, next: Setup): void {
  const was = s.state.design;
  const { fonts } = s.engines;
  const sheet = whose === 'design' ? undefined : pageById(was, whose);
  if (!sheet) {
    s.commit('Change the format', (d) => changeSetup(d, next));
    if (next.medium === 'screen' && s.state.view === 'plates') s.set({ view: 'work', shownInks: null });
    if (!sameSize(setup, next) || setup.bleed !== next.bleed) fitPage(s);
    if (sameSize(setup, next)) return;
    const other = ofOtherFormat(was);
    const follow = sheetsOf(was).filter((p) => !other.includes(p.id));
    offerFit(s, was, follow, (d) => fitSheets(d, was, next, fonts));
    return;
  }
  const master = isMaster(was, sheet.id);
  // Margins that come with the size are no one's own.
  const sized = master ? was : tryOut(was, (d) => setFormat(d, sheet.id, next));
  const fitting = setupOn(sized, pageById(sized, sheet.id)!);
  s.commit(master ? 'Change the margins of a master' : 'Change the format of a page', (d) => {
    if (!master) setFormat(d, sheet.id, next);
    if (!sameGrid(fitting, next)) setGrid(d, sheet.id, gridOf(next));
  });
  if (sameSize(setup, next)) return;
  fitPage(s);
  offerFit(s, was, [sheet], (d) => fitPageTo(d, was, sheet.id, next, fonts));
}

export function FormatSlip() {
  const session = useSession();
  const design = useBench((s) => s.design);
  const pageId = useBench((s) => s.page);
  const page = pageById(design, pageId) ?? design.pages[0];
  const master = isMaster(design, page.id);
  const [chosen, setChosen] = useState<For | null>(null);
  const masters = mastersOf(design, page).toReversed();
  // Who goes to another page meanwhile chooses anew.
  const there = chosen === 'design' || chosen === page.id || masters.some((m) => m.id === chosen);
  const whose = chosen !== null && there ? chosen : master || page.format || page.grid ? page.id : 'design';
  const sheet = whose === 'design' ? undefined : pageById(design, whose);
  const setup = sheet ? setupOn(design, sheet) : design.setup;
  const of = !sheet ? 'design' : isMaster(design, sheet.id) ? 'master' : 'page';
  const others = ofOtherFormat(design).filter((id) => !isMaster(design, id)).length;
  const own = sheet && (sheet.format || sheet.grid);
  return (
    <div className="grid gap-3">
      {(design.pages.length > 1 || master || masters.length > 0) && (
        <ListChoice<For>
          label="Of"
          value={whose}
          groups={[
            {
              name: '',
              options: [
                { value: 'design', label: 'the whole design' },
                ...masters.map((m) => ({ value: m.id, label: `every page of ${sheetName(design, m)}` })),
                { value: page.id, label: master ? 'every page of this master' : 'this page only' },
              ],
            },
          ]}
          onChange={setChosen}
        />
      )}
      <PageSetup setup={setup} of={of} onChange={(next) => change(session, whose, setup, next)} />
      {own && (
        <Button
          title={of === 'master' ? 'Its margins, columns and baseline grid go' : 'Its format and margins go'}
          onClick={() => {
            session.commit('As the design has it', (d) => {
              setFormat(d, sheet.id, null);
              setGrid(d, sheet.id, null);
            });
            setChosen(null);
            fitPage(session);
          }}
        >
          As the design has it
        </Button>
      )}
      {of === 'design' && others > 0 && (
        <p className="m-0 text-faint">{count(others, 'page')} with a format of its own: unchanged by this.</p>
      )}
      {of === 'design' && <WholeDesign setup={setup} />}
    </div>
  );
}

/** What only a design has: how its pages face each other, and what can be made of it. */
function WholeDesign({ setup }: { setup: Setup }) {
  const session = useSession();
  return (
    <>
      <ListChoice<Facing>
        label="Pages"
        value={setup.facing ?? 'alone'}
        groups={[
          {
            name: '',
            options: [
              { value: 'alone', label: 'each by itself' },
              { value: 'right', label: 'facing, the first on the right' },
              { value: 'left', label: 'facing, the first on the left' },
            ],
          },
        ]}
        onChange={(next) => {
          session.commit('Facing pages', (d) => setFacing(d, next === 'alone' ? null : next));
          fitPage(session);
          session.say(
            next === 'alone'
              ? 'Each page stands by itself.'
              : 'Pages face each other: what reaches over the fold shows and prints on both.',
          );
        }}
      />
      {setup.facing && setup.bleed > 0 && (
        <Check
          label="Bleed at the fold"
          hint="Off: each page ends at the fold, as printers who stitch booklets mostly want it"
          checked={!setup.endAtFold}
          onChange={(on) => session.commit('Bleed at the fold', (d) => setEndAtFold(d, !on))}
        />
      )}
      <Button
        title="The same page as card, sticker, poster …: each a design or a page of its own"
        onClick={() => runCommand(session, 'page.refit')}
      >
        This page in other formats
      </Button>
      <Button
        title="Others are begun with it: New design offers it, and asks for what may change"
        onClick={() => runCommand(session, 'design.starter')}
      >
        Keep as a starter
      </Button>
    </>
  );
}
