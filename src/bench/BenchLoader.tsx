'use client';
import { useState } from 'react';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';
import { Bench } from './Bench';
import { BenchBoundary } from './BenchBoundary';
import { SessionProvider } from './session/context';
import { addressed, useDesignSession } from './session/useDesignSession';
import { saving } from './session/saving';

const shelf = { label: 'Go to the shelf', href: '/' };

export function BenchLoader({ id }: { id: string }) {
  const { state, again } = useDesignSession(id);
  const [lost, setLost] = useState('');
  const save = () =>
    void saving
      .get()
      .then((m) => m.saveKept(addressed()))
      .then(
        () => setLost(''),
        () => setLost(' The copy could not be made: the program does not answer. Start it again, then try once more.'),
      );
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
      return (
        <Notice
          title="This design is not on the shelf"
          text="The address may be mistyped, or the design was removed or made in another browser."
          action={shelf}
        />
      );
    case 'broken':
      return (
        <Notice
          title="This design cannot be read"
          text={`What is kept of it is damaged beyond what can be shown. Save what is there as a file; if you have a saved copy, open that from the shelf.${lost}`}
          action={shelf}
        >
          <Button onClick={save}>Save what is there</Button>
        </Notice>
      );
    case 'storage':
      return (
        <Notice title="Nothing can be kept here" text={state.why} action={shelf}>
          <Button onClick={() => again()}>Try again</Button>
        </Notice>
      );
    case 'engine':
      return (
        <Notice
          title="A part of the press did not load"
          text={`${state.why} Your design is safe.${lost}`}
          action={shelf}
        >
          <Button onClick={() => again()}>Try again</Button>
          <Button onClick={save}>Save a copy</Button>
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
