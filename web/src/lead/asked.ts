import { createStore } from 'zustand';

/** A lead who is to confirm something here, and who waits for it. */
interface Asked {
  readonly person: string;
  answer(isConfirmed: boolean): void;
}

/** Who is asked now; the others wait their turn. */
export const leadAsked = createStore<{ readonly asked: readonly Asked[] }>(() => ({ asked: [] }));

/** Asks a lead for the secret that nobody else has. @returns once it was shown, or put off */
export function confirmedByLead(person: string): Promise<boolean> {
  return new Promise((resolve) => {
    const asked: Asked = {
      person,
      answer: (isConfirmed) => {
        leadAsked.setState(({ asked: all }) => ({ asked: all.filter((each) => each !== asked) }));
        resolve(isConfirmed);
      },
    };
    leadAsked.setState(({ asked: all }) => ({ asked: [...all, asked] }));
  });
}
