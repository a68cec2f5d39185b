export { confirmedByLead } from './asked.ts';
