export { isolate, type Isolated, type IsolateRequest, isolateRequest } from './isolate.ts';
