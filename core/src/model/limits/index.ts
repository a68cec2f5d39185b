export { DEFAULT_LIMITS, LIMIT_RANGES, LIMIT_WORDS, type Limits, limitsSchema } from './limits.ts';
