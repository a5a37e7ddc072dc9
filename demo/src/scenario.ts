import type { CravixFile, CrewFile, EquipmentFile } from "@cravix/contract/files";
import type { Aircraft, AircraftType, Airfield } from "@cravix/core/aircraft/aircraft-type";
import { composeType } from "@cravix/core/parts/compose-type";
import type { TypeComposition } from "@cravix/core/parts/type-composition";
import type { RuleSet } from "@cravix/core/rules/rule-set";
import { shippedLibrary } from "@cravix/library";
import ans from "../data/aircraft-qx-ans.json";
import cor from "../data/aircraft-qx-cor.json";
import dov from "../data/aircraft-qx-dov.json";
import hld from "../data/aircraft-qx-hld.json";
import lum from "../data/aircraft-qx-lum.json";
import tar from "../data/aircraft-qx-tar.json";
import heronIsland from "../data/airfield-heron-island.json";
import kelderMoor from "../data/airfield-kelder-moor.json";
import marramPoint from "../data/airfield-marram-point.json";
import saltmouth from "../data/airfield-saltmouth.json";
import crewJson from "../data/crew.json";
import equipmentTwin from "../data/equipment-dovrane-twin.json";
import equipmentTrainer from "../data/equipment-tarrow-4.json";
import rulesJson from "../data/rules-example.json";
import minimumRules from "../data/rules-minimum-list.json";
import ansel2 from "../data/type-ansel-2.json";
import corrantR from "../data/type-corrant-r.json";
import dovraneTwin from "../data/type-dovrane-twin.json";
import haldenSix from "../data/type-halden-six.json";
import lumenSport from "../data/type-lumen-sport.json";
import tarrow4Json from "../data/type-tarrow-4.json";

/** The six types as they are written: compositions of the library's parts. */
export const compositions = [
  tarrow4Json,
  haldenSix,
  lumenSport,
  dovraneTwin,
  ansel2,
  corrantR,
] as unknown as TypeComposition[];

/** A type as its aircraft use it. */
function composed(id: string): AircraftType {
  const composition = compositions.find((one) => one.id === id);
  if (!composition) throw new Error(`no composition for ${id}`);
  const outcome = composeType(composition, shippedLibrary());
  if ("type" in outcome) return outcome.type;
  throw new Error(outcome.faults.map(({ path, expected }) => `${id}: ${path}: ${expected}`).join("; "));
}

/** The made-up Saltgrass Flying Group at Marram Point, in the product's own files. Every test reads them as user files. */
export const tarrow4 = composed("tarrow-4");
export const qxTar = tar as unknown as Aircraft;
export const airfield = marramPoint as unknown as Airfield;
/** Fields nearby: a high and sloping one, a long one, and one without declared distances. */
export const fields = [marramPoint, kelderMoor, saltmouth, heronIsland] as unknown as Airfield[];
export const rules = rulesJson as unknown as RuleSet;
/** The second rule set, with an approved minimum equipment list. */
export const rulesWithList = minimumRules as unknown as RuleSet;
export const trainerEquipment = equipmentTrainer as unknown as EquipmentFile;
export const twinEquipment = equipmentTwin as unknown as EquipmentFile;
export const crew = crewJson as unknown as CrewFile;

/** Every aircraft with its type, by registration. */
export const group: { aircraft: Aircraft; type: AircraftType }[] = (
  [tar, hld, lum, dov, ans, cor] as unknown as Aircraft[]
).map((aircraft) => ({
  aircraft,
  type: aircraft.typeId === tarrow4.id ? tarrow4 : composed(aircraft.typeId),
}));

/** In import order: types before aircraft. */
export const scenarioFiles: CravixFile[] = [
  crew,
  ...fields,
  rules,
  rulesWithList,
  ...compositions,
  ...([tar, hld, lum, dov, ans, cor] as unknown as Aircraft[]),
  trainerEquipment,
  twinEquipment,
];
