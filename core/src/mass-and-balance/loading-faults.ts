import type { LoadingProfile } from "./loading-profile";
import { datumFaults } from "./same-datum";

/** Contradictions in a profile; paths as in the file. */
export function loadingFaults(profile: LoadingProfile): { path: string; expected: string }[] {
  const faults: { path: string; expected: string }[] = [];
  const say = (path: string, expected: string) => faults.push({ path, expected });
  const names = new Set<string>();
  profile.stations.forEach(({ id, minKg, maxKg }, i) => {
    if (names.has(id)) say(`stations[${i}].id`, "a unique id");
    names.add(id);
    if (minKg !== undefined && maxKg !== undefined && minKg > maxKg)
      say(`stations[${i}].minKg`, "no more than its maxKg");
  });
  const known = (list: readonly string[], path: string) =>
    list.forEach((id, n) => {
      if (!names.has(id)) say(`${path}[${n}]`, `a station in this file; ${id} does not exist`);
    });
  profile.groups?.forEach(({ stations }, i) => {
    known(stations, `groups[${i}].stations`);
  });
  if (profile.nonLifting) known(profile.nonLifting.stations, "nonLifting.stations");
  const tanks = new Set(profile.tanks.map(({ tank }) => tank));
  if (tanks.size < profile.tanks.length) say("tanks", "each tank once");
  const used = profile.burn?.flat() ?? [];
  used.forEach((tank) => {
    if (!tanks.has(tank)) say("burn", `a tank in this file; ${tank} does not exist`);
  });
  const fuel = profile.tanks.filter(({ water }) => !water);
  if (profile.burn && new Set(used).size !== fuel.length) say("burn", "each fuel tank in this file once");
  const { emptyKg, armMm, momentKgMm } = profile.weighing;
  if (momentKgMm !== undefined && Math.abs(momentKgMm - emptyKg * armMm) > emptyKg)
    say("weighing.momentKgMm", "the empty mass times its arm, within 1 mm");
  if (profile.maxRampKg && profile.maxRampKg.value < profile.maxTakeoffKg.value)
    say("maxRampKg.value", "no less than the maximum take-off mass");
  const { corners } = profile.envelope;
  const masses = corners.map(({ kg }) => kg);
  if (turns(masses) > 2)
    say("envelope.corners", "corners in order round the envelope, with one CG range at each mass");
  if (Math.max(...masses) === Math.min(...masses)) say("envelope.corners", "corners at more than one mass");
  if (profile.maxTakeoffKg.value > Math.max(...masses) + 1e-9)
    say("maxTakeoffKg.value", "no more than the highest mass of the envelope");
  return [...faults, ...datumFaults(profile)];
}

/** Number of changes between rising and falling mass around the envelope: two for a shape with one span at each mass. */
function turns(masses: readonly number[]): number {
  const steps = masses
    .map((mass, i) => Math.sign((masses[(i + 1) % masses.length] ?? mass) - mass))
    .filter((step) => step !== 0);
  return steps.filter((step, i) => step !== steps[(i + 1) % steps.length]).length;
}
