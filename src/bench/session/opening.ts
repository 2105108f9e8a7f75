import type { Session } from './session';

/** Longer than this, and a person asks what is going on. */
const SOON_MS = 600;

/** Waits for a file that is being read; where that takes a while the strip says so and offers to stop it. */
export async function opening<T>(s: Session, name: string, reading: Promise<T>): Promise<T> {
  const text = `Opening ${name} …`;
  const late = setTimeout(() => s.say(text, 'plain', { label: 'Stop', run: () => s.pictureWorker.stop() }), SOON_MS);
  try {
    return await reading;
  } finally {
    clearTimeout(late);
    if (s.state.message?.text === text) s.set({ message: null });
  }
}
