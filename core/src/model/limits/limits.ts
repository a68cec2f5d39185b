import Joi from 'joi';

/** Figures that a workshop sets for itself. A job keeps those it was taken in under. */
export interface Limits {
  /** thicker than the map by more than this: swollen */
  readonly swelling_percent: number;
  /** charge below which a bond near a cell is cut, 0 to 1 */
  readonly runDownTo: number;
  /** charge below which a reset or set-up refuses to run, 0 to 1 */
  readonly resetFloor: number;
  /** charge that a device with a lift-out cell should have, so that its result can be tested, 0 to 1 */
  readonly testCharge: number;
  /** what a device draws that is left on to run down */
  readonly load_W: number;
  readonly charger_W: number;
  readonly returnWindow_days: number;
  /** a cell that holds more is large: gloves on, rings off, before it is taken out */
  readonly gloves_Wh: number;
  /** most charge of a cell that is taken out of its pack, 0 to 1 */
  readonly transplantCharge: number;
  /** most difference of open-circuit voltage, old cell to new or between new ones */
  readonly transplantDifference_V: number;
  /** how fast a pick is run along a soft bond */
  readonly cutSpeed_mm_s: number;
  /** solvent is put to a bond only below this */
  readonly solventBelow_C: number;
  /** what one drop of solvent holds */
  readonly drop_uL: number;
  /** the air over the bench that vapour spreads into */
  readonly benchVolume_L: number;
  /** how often an hour that air is changed */
  readonly airChanges_h: number;
  /** what a screw costs that sticks out of its hole, by what lies below: minutes of work to put right */
  readonly hurtBoard_min: number;
  readonly hurtBattery_min: number;
  readonly hurtDisplay_min: number;
  readonly hurtPlastic_min: number;
  readonly hurtMetal_min: number;
  /** a boss that is stripped by a screw that holds too little of it */
  readonly hurtShort_min: number;
  /** a hole that another thread was cut into */
  readonly hurtThread_min: number;
  /** how much a length that is judged by eye scatters, and a head */
  readonly tellLength_mm: number;
  readonly tellHead_mm: number;
  /** share of its strength that adhesive has before a device is handed over, 0 to 1 */
  readonly handOverStrength: number;
  /** containers that stand at a bench */
  readonly containers: number;
  /** how often a map mat is knocked before everything is back in, 0 to 1 */
  readonly matKnocked: number;
}

export const DEFAULT_LIMITS: Limits = {
  swelling_percent: 8,
  runDownTo: 0.25,
  resetFloor: 0.1,
  testCharge: 0.4,
  load_W: 3,
  charger_W: 10,
  returnWindow_days: 30,
  gloves_Wh: 25,
  transplantCharge: 0.3,
  transplantDifference_V: 0.05,
  cutSpeed_mm_s: 4,
  solventBelow_C: 40,
  drop_uL: 40,
  benchVolume_L: 400,
  airChanges_h: 6,
  hurtBoard_min: 240,
  hurtBattery_min: 480,
  hurtDisplay_min: 150,
  hurtPlastic_min: 20,
  hurtMetal_min: 5,
  hurtShort_min: 15,
  hurtThread_min: 30,
  tellLength_mm: 0.3,
  tellHead_mm: 0.25,
  handOverStrength: 0.5,
  containers: 4,
  matKnocked: 0.02,
};

/** What each limit is called, in what it is given, and where its default comes from. */
export const LIMIT_WORDS: Readonly<
  Record<keyof Limits, { name: string; unit: string; origin: string; percent?: true }>
> = {
  swelling_percent: { name: 'Swollen from', unit: '% over the map', origin: 'common practice' },
  runDownTo: { name: 'Run down below', unit: '%', origin: 'common practice', percent: true },
  resetFloor: { name: 'A reset refuses under', unit: '%', origin: 'common practice', percent: true },
  testCharge: { name: 'Arrive charged with', unit: '%', origin: 'guess', percent: true },
  load_W: { name: 'A device left on draws', unit: 'W', origin: 'guess' },
  charger_W: { name: 'The charger gives', unit: 'W', origin: 'guess' },
  returnWindow_days: { name: 'Parts may go back for', unit: 'days', origin: 'common practice' },
  gloves_Wh: { name: 'Gloves for a cell over', unit: 'Wh', origin: 'guess' },
  transplantCharge: { name: 'Cell transplant only under', unit: '%', origin: 'guess', percent: true },
  transplantDifference_V: { name: 'Cells may differ by', unit: 'V', origin: 'guess' },
  cutSpeed_mm_s: { name: 'A pick runs at', unit: 'mm/s', origin: 'guess' },
  solventBelow_C: { name: 'Solvent only below', unit: '°C', origin: 'guess' },
  drop_uL: { name: 'A drop of solvent holds', unit: 'µL', origin: 'common practice' },
  benchVolume_L: { name: 'Air over the bench', unit: 'L', origin: 'guess' },
  airChanges_h: { name: 'That air is changed', unit: 'times an hour', origin: 'guess' },
  hurtBoard_min: { name: 'A screw into a board costs', unit: 'min', origin: 'common practice' },
  hurtBattery_min: { name: 'A screw toward a cell costs', unit: 'min', origin: 'common practice' },
  hurtDisplay_min: { name: 'A screw against a display costs', unit: 'min', origin: 'common practice' },
  hurtPlastic_min: { name: 'A screw through plastic costs', unit: 'min', origin: 'common practice' },
  hurtMetal_min: { name: 'A screw against metal costs', unit: 'min', origin: 'common practice' },
  hurtShort_min: { name: 'A stripped boss costs', unit: 'min', origin: 'common practice' },
  hurtThread_min: { name: 'A spoiled thread costs', unit: 'min', origin: 'common practice' },
  tellLength_mm: { name: 'The eye judges a length to', unit: 'mm', origin: 'guess' },
  tellHead_mm: { name: 'The eye judges a head to', unit: 'mm', origin: 'guess' },
  handOverStrength: {
    name: 'Handed over once adhesive has',
    unit: '% of its strength',
    origin: 'guess',
    percent: true,
  },
  containers: { name: 'Screw containers at a bench', unit: 'pieces', origin: 'common practice' },
  matKnocked: { name: 'A map mat is knocked in', unit: '% of repairs', origin: 'guess', percent: true },
};

/** Between what each may be set; a lead who needs more changes the way of working, not the figure (guesses). */
export const LIMIT_RANGES: Readonly<Record<keyof Limits, { least: number; most: number; whole?: true }>> = {
  swelling_percent: { least: 2, most: 20 },
  runDownTo: { least: 0.05, most: 0.5 },
  resetFloor: { least: 0.02, most: 0.3 },
  testCharge: { least: 0.1, most: 0.9 },
  load_W: { least: 0.1, most: 50 },
  charger_W: { least: 1, most: 200 },
  returnWindow_days: { least: 0, most: 365, whole: true },
  gloves_Wh: { least: 5, most: 100 },
  transplantCharge: { least: 0, most: 0.5 },
  transplantDifference_V: { least: 0.005, most: 0.1 },
  cutSpeed_mm_s: { least: 0.5, most: 20 },
  solventBelow_C: { least: 25, most: 50 },
  drop_uL: { least: 10, most: 100 },
  benchVolume_L: { least: 50, most: 10_000 },
  airChanges_h: { least: 0.5, most: 60 },
  hurtBoard_min: { least: 0, most: 10_000 },
  hurtBattery_min: { least: 0, most: 10_000 },
  hurtDisplay_min: { least: 0, most: 10_000 },
  hurtPlastic_min: { least: 0, most: 10_000 },
  hurtMetal_min: { least: 0, most: 10_000 },
  hurtShort_min: { least: 0, most: 10_000 },
  hurtThread_min: { least: 0, most: 10_000 },
  tellLength_mm: { least: 0.01, most: 5 },
  tellHead_mm: { least: 0.01, most: 5 },
  handOverStrength: { least: 0.05, most: 1 },
  containers: { least: 1, most: 50, whole: true },
  matKnocked: { least: 0, most: 1 },
};

/** Any of the limits, each in its range. */
export const limitsSchema = Joi.object(
  Object.fromEntries(
    Object.entries(LIMIT_RANGES).map(([key, { least, most, whole }]) => {
      const figure = Joi.number().min(least).max(most);
      return [key, whole ? figure.integer() : figure];
    }),
  ),
);
