export { type Torque, torqueOf, type TorqueRequest, torqueRequest } from './torque.ts';
