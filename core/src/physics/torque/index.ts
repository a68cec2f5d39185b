export { type Torque, torqueOf, type TorqueRequest, torqueRequest } from './torque.ts';
export { TORQUE_N_CM } from './units.ts';
