export { DEFAULT_POLICY, type Policy, POLICY_OPTIONS, policySchema, settled } from './policy.ts';
