/** Parameters of a simulated engine: enough to build a plausible one, without any type or maker. */
export interface EngineShape {
  cylinders: number;
  fuelSystem: "carburettor" | "injected";
  propeller: "fixed" | "constant speed";
  /** System voltage, 14 or 28. */
  volts: 14 | 28;
  /** Crankshaft speed at full power, rpm: 2,700 for a direct drive, 5,500 for a geared one. */
  ratedRpm: number;
  vacuumPump: boolean;
  /** Oil pressure at its relief valve, psi; default 74. */
  oilPsi?: number;
}

/** Physical engine derived from a shape. SI units unless the name says otherwise. */
export interface EngineSpec extends EngineShape {
  displacementM3: number;
  manifoldM3: number;
  /** Effective throat area of the carburettor or throttle body, fully open, m². */
  throatM2: number;
  /** Open share of the throat at the idle stop. */
  idleOpening: number;
  /** Volumetric efficiency. */
  breathing: number;
  /** Indicated mean effective pressure at one bar of manifold pressure and 288 K of charge, bar. */
  imepBar: number;
  /** Friction as mean effective pressure, bar: at rest, and its increase up to rated speed. */
  frictionBar: readonly [number, number];
  /** Rotating inertia, propeller and crankshaft, kg·m². */
  inertia: number;
  /** Torque of the propeller at its fine stop = this · density · speed² (rad/s), m⁵. */
  propellerLoad: number;
  /** Share of the indicated work lost when only one of two plugs fires. */
  onePlugLoss: number;
}

/**
 * A plausible engine of this shape, scaled so that full throttle on the ground gives 87 % of rated speed with a fixed propeller.
 * Valid range: 2 to 14 cylinders, rated 2,000 to 7,000 rpm; throws RangeError otherwise. Source: common practice for the mean
 * pressures; the rest is invented and no engine in particular.
 */
export function engineOf(shape: EngineShape): EngineSpec {
  const { cylinders, ratedRpm } = shape;
  if (!Number.isInteger(cylinders) || cylinders < 2 || cylinders > 14)
    throw new RangeError("Enter 2 to 14 cylinders.");
  if (!(ratedRpm >= 2000 && ratedRpm <= 7000))
    throw new RangeError("The rated speed must be 2,000 to 7,000 rpm.");
  const displacementM3 = (cylinders * 1.47e-3 * 2700) / ratedRpm;
  const omega = (ratedRpm * Math.PI) / 30;
  const staticOmega = omega * 0.87;
  // Brake mean effective pressure at full throttle on the ground, about 9.4 bar, as torque.
  const fullTorque = (9.4e5 * displacementM3) / (4 * Math.PI);
  return {
    ...shape,
    displacementM3,
    manifoldM3: displacementM3 * 0.62,
    throatM2: ((displacementM3 * ratedRpm) / 2700 / 5.88e-3) * 1.05e-3,
    // Geared engines idle faster.
    idleOpening: ratedRpm > 4000 ? 0.034 : 0.027,
    breathing: 0.85,
    imepBar: 11.6,
    frictionBar: [0.75, 0.6],
    inertia: 1.15 * (displacementM3 / 5.88e-3) * (2700 / ratedRpm),
    propellerLoad: fullTorque / (1.225 * staticOmega * staticOmega),
    onePlugLoss: 0.066,
  };
}

/**
 * Propeller torque, N·m, at an air density (kg/m³) and speed (rad/s), proportional to speed squared. Source: propeller
 * coefficients.
 */
export function propellerTorque(spec: EngineSpec, density: number, omega: number, pitch = 0): number {
  return spec.propellerLoad * (1 + PITCH_GAIN * pitch) * density * omega * omega;
}

/** Torque ratio of the coarse to the fine pitch stop. */
export const PITCH_GAIN = 3.2;
