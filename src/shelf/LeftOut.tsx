import { downloadAside } from '@/saving/saveCopy';
import type { AsideRow } from '@/store/database';
import { Button } from '@/ui/Button';

/** What could not be read when a design was opened, still as it lay. Most people never see this. */
export function LeftOut({
  rows,
  nameOf,
  onThrow,
}: {
  rows: readonly AsideRow[];
  nameOf: (designId: string) => string;
  onThrow: (row: AsideRow) => Promise<void>;
}) {
  return (
    <details className="mt-8">
      <summary className="cursor-pointer">Left out when opened ({rows.length})</summary>
      <ul aria-label="Left out when opened" className="m-0 mt-2 list-none rounded-sm border border-line bg-panel p-0">
        {rows.map((row) => (
          <li key={row.id} className="flex items-center gap-3 border-b border-line px-3 py-2 last:border-b-0">
            <span className="min-w-0 flex-1">
              <span className="font-semibold">{nameOf(row.designId)}</span>{' '}
              <span className="text-faint">
                {new Date(row.when).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })}
              </span>
              <br />
              {row.why}
            </span>
            <Button onClick={() => downloadAside(row)}>Save the file</Button>
            <Button kind="quiet" onClick={() => void onThrow(row)}>
              Throw away
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}
