'use client';
import { Button } from '@/ui/Button';
import { Notice } from '@/ui/Notice';

/** For everything outside the bench, which has a boundary of its own. */
export default function AppError({ reset }: { error: Error; reset: () => void }) {
  return (
    <Notice
      title="This screen stumbled"
      text="Your designs are kept in this browser and are safe."
      action={{ label: 'Go to the shelf', href: '/' }}
    >
      <Button onClick={reset}>Try again</Button>
    </Notice>
  );
}
