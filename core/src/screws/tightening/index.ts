export { tighteningOrder } from './crosswise.ts';
export { peakVerdict, type PeakVerdict, type TorqueWindow, windowOf } from './window.ts';
