export { Refusal } from './refusal.ts';
