import { shapeOf } from "@cravix/contract/simulated-engine";
import type { RunUpEngine } from "@cravix/core/run-up-entry";
import { type EngineMonitor, listenLive, listenPractice } from "../../../device/workers/engine-monitor";
import type { LoadedPreflight } from "../../open-preflight";
import type { SimulatedFaultChoice } from "../practice/simulated-fault";

type Listener = Parameters<typeof listenLive>[1];

/**
 * Monitor of this engine: the server's, or this device's for practice. Undefined if the type has no engine with a monitor.
 * `round` distinguishes runs; `cold` is a freshly started engine.
 */
export function monitorOf(
  preflight: LoadedPreflight,
  { profile, pressureHpa, settingHpa }: RunUpEngine,
  planted: SimulatedFaultChoice,
  { practice, round, cold }: { practice: boolean; round: number; cold: boolean },
): ((on: Listener) => EngineMonitor) | undefined {
  const shape = shapeOf(preflight.list.type);
  if (!shape) return undefined;
  const { fault, side, cylinder, severity, speed, seed, lifelike } = planted;
  const celsius = preflight.state.celsius ?? 15;
  if (!practice)
    return (on) =>
      listenLive(
        {
          registration: preflight.list.registration,
          fault: fault.kind,
          side,
          cylinder: String(cylinder),
          severity: String(severity),
          seed: String(seed + round),
          speed: String(speed),
          celsius: String(celsius),
          ...(settingHpa !== undefined && { settingHpa: String(settingHpa) }),
          ...(lifelike && { lifelike: "yes" }),
          ...(cold && { warm: "no" }),
        },
        on,
      );
  return (on) =>
    listenPractice(
      {
        shape,
        runUpRpm: profile.rpm,
        clearRpm: profile.clear.rpm,
        groundLeanRpm: profile.groundLean.rpm,
        air: { pressureHpa: pressureHpa ?? 1013, celsius, humidity: 0.6 },
        fault,
        severity,
        seed: seed + round,
        lifelike,
        warm: !cold,
      },
      speed,
      on,
    );
}
