import { askedAtBench } from '../src/asking/at-bench/index.ts';
import { askedInHandingOver } from '../src/asking/handing-over/index.ts';
import { askedInPreparing, type Draft, NO_DRAFT } from '../src/asking/preparing/index.ts';
import { askedInTakingIn } from '../src/asking/taking-in/index.ts';
import { type Answer, given, type Gives, nextAsked, type Question } from '../src/asking/question/index.ts';
import type { Op } from '../src/planner/drafts/index.ts';
import { type AtHand, bondInHand, nextPress } from '../src/bench/in-hand/index.ts';
import { settingFor } from '../src/physics/heat/index.ts';
import { TRANSPLANT_GATE } from '../src/job/rules/index.ts';
import { rowOf } from '../src/job/events/index.ts';
import type { TestBench } from './bench.ts';
import { Led } from './led.ts';

type Page = 'intake' | 'prepare' | 'bench' | 'record' | 'hand-over';

/** What is typed where a question wants something. */
const TYPED: Readonly<Record<string, string>> = { 'From, and as what': 'Harbour Parts, new' };

/** A bond of which nothing is foreseen: warmed by feel. */
const UNFORESEEN = {
  on: null,
  off: null,
  bond_C: null,
  soften_C: 60,
  drag: { low: 35, likely: 40, high: 45, from: 0 },
  problem: 'not foreseen',
};

/** Somebody who sees questions and nothing else, from taking in to the record, and gives answers by their ids. */
export class Answering {
  readonly bench: TestBench;
  readonly asked: Question[] = [];
  page: Page = 'intake';
  /** how many answers were given */
  presses = 0;
  readonly #led: Led;
  #passed = new Set<string>();
  #draft: Draft = NO_DRAFT;
  #then: Question | null = null;
  #early: string | null = null;

  constructor(bench: TestBench) {
    this.bench = bench;
    this.#led = new Led(bench);
  }

  /** What is asked now. */
  question(): Question {
    const { mechanism, state, now } = this.bench;
    if (this.#then) return this.#then;
    switch (this.page) {
      case 'intake':
        return nextAsked(askedInTakingIn({ map: mechanism.map, state, passed: this.#passed }), null)!.question;
      case 'prepare': {
        const desk = { today: '2026-11-24', window_days: 14 } as const;
        const ahead = this.#led.ahead();
        const at = { mechanism, state, ahead, kit: null, desk, usualSource: '', draft: this.#draft, now };
        return nextAsked(askedInPreparing(at), null)!.question;
      }
      case 'record':
      case 'hand-over':
        return nextAsked(
          askedInHandingOver({ mechanism, state, now, said: this.#passed, early: this.#early, clock: (at) => at }),
          null,
        )!.question;
      default:
        return askedAtBench({
          mechanism,
          state,
          ahead: this.#led.ahead(),
          now,
          atHand: this.#atHand(),
          where: null,
          unit: 'C',
        });
    }
  }

  /** The answer of this id, else the main one, else the first that can be given; time goes by where one waits. */
  answer(wanted?: string, typed?: string): void {
    const question = this.question();
    this.asked.push(question);
    const found = question.answers.find(({ id }) => id === wanted);
    const main = question.answers.find(({ weight }) => weight === 'main');
    const answer = found ?? main ?? question.answers[0];
    if (!found && question.wait && !main) return void this.bench.wait(60);
    if (!answer || answer.notNow !== undefined) throw new Error(`${question.title}: ${answer?.notNow ?? 'no answer'}`);
    this.#give(question, answer, typed);
  }

  #give(question: Question, answer: Answer, typed: string | undefined): void {
    this.presses++;
    const text = typed ?? this.#usual(question);
    const outcome = given(
      answer,
      question.field,
      text,
      () => `00000000-0000-4000-9000-${String(this.presses).padStart(12, '0')}`,
    );
    if (!('gives' in outcome)) throw new Error(`${question.title}: ${outcome.message}`);
    this.#act(outcome.gives);
  }

  #usual({ field }: Question): string {
    if (!field) return '';
    if (field.kind === 'text') return TYPED[field.label] ?? 'because';
    return this.page === 'prepare' && this.#led.ahead().charge?.way === 'run-down' ? '20' : '60';
  }

  #act(gives: Gives): void {
    const { bench } = this;
    this.#then = null;
    switch (gives.kind) {
      case 'say':
        for (const { type, data } of gives.events) {
          // as the server looks at it first
          const { error } = rowOf(type)!.data.validate(data);
          if (error) throw new Error(`${type}: ${error.message}`);
          if (bench.send(type, data as never).problem) return;
        }
        if (gives.then) this.page = gives.then as Page;
        if (gives.events.some(({ type }) => type === 'finish')) this.page = 'record';
        return;
      case 'go':
        this.page = gives.to as Page;
        return;
      case 'then':
        this.#then = gives.question;
        return;
      case 'mark': {
        this.#passed = new Set([...this.#passed, ...gives.items]);
        const { done, without, passed } = this.#draft;
        if (gives.mark === 'done') this.#draft = { ...this.#draft, done: new Set([...done, ...gives.items]) };
        if (gives.mark === 'passed') this.#draft = { ...this.#draft, passed: new Set([...passed, ...gives.items]) };
        if (this.page === 'hand-over' && gives.mark === 'without') this.#early = gives.reason!;
        if (gives.mark === 'without') {
          const more = gives.items.map((item) => [item, gives.reason!] as const);
          this.#draft = { ...this.#draft, without: new Map([...without, ...more]) };
        }
        return;
      }
      case 'ask':
        if (gives.about === 'transplant') {
          const allowed = { lead: 'Maren', text: 'no other way', charge: 0.2, confirmed: TRANSPLANT_GATE };
          return void bench.send('transplant-allowed', allowed, 'Maren');
        }
        throw new Error(`Nobody answers ${gives.about} here.`);
      default:
        throw new Error(`Nobody gives ${gives.kind} here.`);
    }
  }

  /** Whoever warms without a forecast takes the source off after five minutes. */
  #atHand(): AtHand {
    const { mechanism, state } = this.bench;
    const bond = bondInHand(mechanism.map, this.#led.ahead().ops[0]);
    const setting = bond && settingFor(bond, null);
    const { heating } = state.opening;
    const on = heating && {
      elapsed_s: 300,
      clock: null,
      foresight: null,
      fit: null,
      setting: setting!,
      workingNow_s: null,
    };
    return { warm: { ...UNFORESEEN, on }, setting };
  }

  /** What is in hand at the bench, and what one press does with it. */
  inHand(): { readonly op: Op | undefined; readonly together: readonly Op[] } {
    const { mechanism, state, now } = this.bench;
    const ahead = this.#led.ahead();
    return { op: ahead.ops[0], together: nextPress(mechanism, state, ahead, now, this.#atHand()).ops };
  }

  /** From the record to its owner. */
  handedOver(): this {
    this.page = 'hand-over';
    for (let n = 0; n < 10 && !this.bench.state.handedOver; n++) this.answer();
    return this;
  }

  /** By main answers alone to its record; `instead` says what is answered to some question otherwise. */
  toTheRecord(instead: (question: Question) => string | undefined = () => undefined, most = 600): this {
    for (let n = 0; n < most && this.page !== 'record'; n++) {
      const question = this.question();
      this.answer(instead(question));
      const { problem } = this.bench;
      // solvent is refused while the bond is warm
      if (problem?.includes('solvent')) this.bench.wait(600);
      else if (problem) throw new Error(`${question.title}: ${problem}`);
    }
    return this;
  }
}
