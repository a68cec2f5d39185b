export { DEFAULT_POLICY, type Policy, POLICY_OPTIONS, policySchema, settled, usualPolicy } from './policy.ts';
