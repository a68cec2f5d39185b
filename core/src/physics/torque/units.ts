/** What one of each is in N·cm: definitions of the pound, the inch and standard gravity. */
export const TORQUE_N_CM = { 'N·cm': 1, 'N·m': 100, 'kgf·cm': 9.80665, 'ozf·in': 0.7061552 } as const;
