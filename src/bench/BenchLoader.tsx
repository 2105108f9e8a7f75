'use client';
import { designStore } from '@/store/open';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { Bench } from './Bench';
import { BenchBoundary } from './BenchBoundary';
import { SessionProvider } from './session/context';
import { useDesignSession } from './session/useDesignSession';
import { saveCopy } from './saveCopy';

const shelf = { label: 'Go to the shelf', href: '/' };

/** Saves what is kept of a design, whatever does not work. */
async function saveKept(id: string): Promise<void> {
  const loaded = await designStore().load(id);
  if (loaded.ok) await saveCopy(loaded.value.design);
}

export function BenchLoader({ id }: { id: string }) {
  const { state, again } = useDesignSession(id);
  switch (state.kind) {
    case 'loading':
      return (
        <main className="grid min-h-dvh place-items-center bg-bench" aria-busy="true">
          <p role="status" className="rounded-sm border border-line bg-panel px-4 py-2">
            {state.doing} …
          </p>
        </main>
      );
    case 'unknown':
      return <Notice title="This design is not on the shelf" text="The address may be mistyped, or the design was removed or made in another browser." action={shelf} />;
    case 'broken':
      return <Notice title="This design cannot be read" text="What is kept of it is damaged. If you have a saved copy, open that from the shelf." action={shelf} />;
    case 'storage':
      return (
        <Notice title="Nothing can be kept here" text={state.why} action={shelf}>
          <Button onClick={() => again()}>Try again</Button>
        </Notice>
      );
    case 'engine':
      return (
        <Notice title="A part of the press did not load" text={`${state.why} Your design is safe.`} action={shelf}>
          <Button onClick={() => again()}>Try again</Button>
          <Button onClick={() => void saveKept(id)}>Save a copy</Button>
        </Notice>
      );
    case 'open':
      return (
        <SessionProvider session={state.session} key={state.session.design.id}>
          <BenchBoundary session={state.session}>
            <Bench onTakeOver={() => again(true)} />
          </BenchBoundary>
        </SessionProvider>
      );
  }
}
