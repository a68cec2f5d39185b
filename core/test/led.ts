import { type Ahead, aheadOf, type PlansMade } from '../src/bench/in-hand/index.ts';
import { settled } from '../src/model/policy/index.ts';
import { benchItems } from '../src/workshop/prepare/index.ts';
import { cellForALead, targetsForNow, TRANSPLANT_GATE } from '../src/job/rules/index.ts';
import type { TestBench } from './bench.ts';

const ALLOWED = { lead: 'Maren', text: 'no other way', charge: 0.2, confirmed: TRANSPLANT_GATE };

/** A repair as the page leads through it: what it asks is answered, what it does not ask is not said. */
export class Led {
  readonly #bench: TestBench;
  readonly #made: PlansMade = new Map<string, Ahead>();

  constructor(bench: TestBench) {
    this.#bench = bench;
  }

  ahead(): Ahead {
    const { mechanism, job, state } = this.#bench;
    return aheadOf(mechanism, job, state.events, this.#made);
  }

  /** Does what is next. False where nothing is; the bench's `problem` is what it was refused for. */
  next(): boolean {
    const bench = this.#bench;
    const { ops, untold } = this.ahead();
    const [op] = ops;
    if (!op) return false;
    const charge = bench.state.charges.at(-1)?.charge;
    if (cellForALead(bench.mechanism.map, bench.state, op)) bench.send('transplant-allowed', ALLOWED, 'Maren');
    switch (op.name) {
      case 'agree':
        bench.send('told', { items: untold.map(({ text }) => text), who: 'Aldis', how: 'here' });
        break;
      case 'run-down':
      case 'charge-up':
        bench.send('charge', { charge: op.name === 'run-down' ? 0.2 : 0.6, source: 'typed' });
        break;
      case 'prepare': {
        const targets = targetsForNow(bench.mechanism, bench.state);
        const { map } = bench.mechanism;
        const settings = { ...settled(map, bench.state.policy).policy, ...bench.state.limits };
        const items = benchItems(map, targets, settings, ops).map(({ id }) => id);
        const told = bench.state.agreed?.items ?? [];
        bench.send('prepared', { items, skipped: [], told, ...(charge === undefined ? {} : { charge }) });
        break;
      }
      default:
        bench.do(op);
    }
    return true;
  }
}
