import { type AskedField, type Keyless, saying } from './question.ts';

/** The charge as the device shows it, asked for wherever it is not known. */
export const CHARGE_FIELD: AskedField = {
  label: 'Charge now',
  kind: 'figure',
  unit: '%',
  least: 0,
  most: 100,
  cure: 'A percentage, 0 to 100, as the device shows it.',
};

/** The figure that was typed is recorded as a share. */
export const CHARGE_READ: Keyless = {
  id: 'read',
  label: 'That is the charge',
  weight: 'main',
  gives: saying('charge', { charge: 0, source: 'typed' }),
  takes: { name: 'charge', factor: 0.01 },
};
