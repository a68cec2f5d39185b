import type { RegistryAnswer } from '@nibrel/core/model/identity';

/** Where an answer came from, as it stands on every screen and print. */
export const REGISTRY_NAME = 'register stand-in (simulated)';

/** Numbers that the invented workshop knows; every other answers by its digits. */
const KNOWN: Readonly<Record<string, RegistryAnswer>> = {
  '009999010000143': 'clear',
  '009999010000259': 'barred',
  '009999010000366': 'locked',
};

/**
 * Stands in for a register of barred and locked equipment: slow, and not always there. It knows nothing of any real
 * device.
 */
export class RegistryStandIn {
  #asked = 0;

  /** Answers after a while; one in five asks, and numbers that end in 99, get no answer at all. */
  async ask(number: string, signal: AbortSignal): Promise<RegistryAnswer> {
    this.#asked++;
    const digits = number.replaceAll(/[\s-]/g, '').slice(0, 15);
    const known = KNOWN[digits];
    if (digits.slice(0, 14).endsWith('99') || (!known && this.#asked % 5 === 0)) await never(signal);
    await pause(600 + ((this.#asked * 700) % 1700), signal);
    return known ?? ANSWERS[Number(digits.at(-2) ?? 0)] ?? 'unknown';
  }
}

const ANSWERS: readonly RegistryAnswer[] = [
  'clear',
  'clear',
  'clear',
  'clear',
  'clear',
  'unknown',
  'clear',
  'barred',
  'locked',
];

function pause(milliseconds: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, milliseconds);
    signal.addEventListener('abort', () => {
      clearTimeout(timer);
      reject(signal.reason as Error);
    });
  });
}

function never(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => signal.addEventListener('abort', () => reject(signal.reason as Error)));
}

/** Asks, and takes silence for an answer after a while. */
export async function askWithin(
  registry: Pick<RegistryStandIn, 'ask'>,
  number: string,
  limit_ms: number,
): Promise<RegistryAnswer> {
  const signal = AbortSignal.timeout(limit_ms);
  try {
    return await registry.ask(number, signal);
  } catch (error) {
    if (signal.aborted) return 'not-reachable';
    throw error;
  }
}
