export { type Report, reportOf } from './report.ts';
