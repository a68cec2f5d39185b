/** Roots of ζ·tan ζ = Bi, and what each counts for (Incropera & DeWitt, 5.39). */
export function eigenvalue(Bi: number, n: number): number {
  let [low, high] = [n * Math.PI, n * Math.PI + Math.PI / 2];
  for (let step = 0; step < 80; step++) {
    const middle = (low + high) / 2;
    if (middle * Math.tan(middle) < Bi) low = middle;
    else high = middle;
  }
  return low;
}

export function coefficient(zeta: number): number {
  return (4 * Math.sin(zeta)) / (2 * zeta + Math.sin(2 * zeta));
}

/**
 * Plane wall of half thickness 1 with convection on both faces, starting at 1 with 0 outside: the share that is left at
 * `x` from its middle (Incropera & DeWitt, ch. 5, the whole series).
 */
export function planeWall(Bi: number, Fo: number, x: number): number {
  let sum = 0;
  for (let n = 0; n < 60; n++) {
    const zeta = eigenvalue(Bi, n);
    sum += coefficient(zeta) * Math.exp(-zeta * zeta * Fo) * Math.cos(zeta * x);
  }
  return sum;
}
