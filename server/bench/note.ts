import { randomUUID } from 'node:crypto';

/** The smallest event there is. */
export const note = () => ({
  id: randomUUID(),
  type: 'note',
  at: new Date().toISOString(),
  by: 'Ines',
  data: { text: 'bench' },
});
