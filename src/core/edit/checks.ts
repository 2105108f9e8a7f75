import type { Limits } from '../model/checksSchema';
import type { DesignDraft } from './history';

type Checks = NonNullable<DesignDraft['checks']>;

function change(d: DesignDraft, to: (c: Checks) => void): void {
  const checks: Checks = d.checks ?? {};
  to(checks);
  if (!checks.waivers?.length) delete checks.waivers;
  if (checks.limits || checks.waivers) d.checks = checks;
  else delete d.checks;
}

/** Limits of the design's own, or (null) those of its paper again. */
export const setLimits = (d: DesignDraft, limits: Limits | null): void =>
  change(d, (c) => {
    if (limits) c.limits = { ...limits };
    else delete c.limits;
  });

/** Says why what a rule finds of an object or a page is meant to be so; with no reason it is not any more. */
export const setWaiver = (d: DesignDraft, code: string, of: string, reason: string | null): void =>
  change(d, (c) => {
    const others = (c.waivers ?? []).filter((w) => w.code !== code || w.of !== of);
    c.waivers = reason === null ? others : [...others, { code, of, reason }];
  });
