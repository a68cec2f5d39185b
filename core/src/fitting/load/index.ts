export { type Load, loadFrom, type LoadRequest, loadRequest, type Weight } from './load.ts';
