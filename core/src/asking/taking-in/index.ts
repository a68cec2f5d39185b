export { askedInTakingIn, type TakingIn } from './asked-in-taking-in.ts';
export { BESIDE_TAKING_IN } from './beside-taking-in.ts';
export { addressOf, type Ask, fullBut, partOf, targetsIn, thingsFor, withAsked } from './job-targets.ts';
export { askedForNew } from './new-repair.ts';
