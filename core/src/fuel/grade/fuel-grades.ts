import type { Source } from "../../judgement/judgement";
import { assertFinite, QuantityError } from "../../units/convert";

/** Colours of a fuel sample. */
export const FUEL_COLOURS = ["blue", "green", "red", "brown", "straw", "colourless"] as const;
export type FuelColour = (typeof FUEL_COLOURS)[number];

export interface FuelGrade {
  id: string;
  name: string;
  /** Dye colours by the standard; undyed fuel is "straw" or "colourless". */
  colours: readonly FuelColour[];
  /** Kilograms per litre at 15 °C. */
  kgPerL: number;
  /** Relative volume expansion per degree. */
  perCelsius: number;
  kerosene?: boolean;
  source: Source;
}

const by = (text: string): Source => ({ kind: "rule", text: `${text} (from memory)`, example: true });

/**
 * Common fuel grades. Dyes: ASTM D910, ASTM D7547, EN 228, ASTM D1655, all from memory. Densities: planning figures of
 * FAA-H-8083-1 (6 lb per US gallon of aviation gasoline, 6.8 of kerosene); motor fuel by EN 228, the middle of 0.720 to 0.775.
 * Expansion: about 0.12 % per degree for gasoline, 0.09 % for kerosene (API tables, from memory).
 */
export const FUEL_GRADES: readonly FuelGrade[] = [
  {
    id: "100LL",
    name: "Avgas 100LL",
    colours: ["blue"],
    kgPerL: 0.719,
    perCelsius: 0.0012,
    source: by("ASTM D910: blue"),
  },
  {
    id: "100",
    name: "Avgas 100",
    colours: ["green"],
    kgPerL: 0.719,
    perCelsius: 0.0012,
    source: by("ASTM D910: green"),
  },
  {
    id: "91",
    name: "Avgas 91",
    colours: ["brown"],
    kgPerL: 0.719,
    perCelsius: 0.0012,
    source: by("ASTM D910: brown"),
  },
  {
    id: "80",
    name: "Avgas 80",
    colours: ["red"],
    kgPerL: 0.719,
    perCelsius: 0.0012,
    source: by("ASTM D910: red"),
  },
  {
    id: "UL91",
    name: "Unleaded avgas UL91",
    colours: ["colourless"],
    kgPerL: 0.719,
    perCelsius: 0.0012,
    source: by("ASTM D7547: no dye"),
  },
  {
    id: "UL94",
    name: "Unleaded avgas UL94",
    colours: ["colourless"],
    kgPerL: 0.719,
    perCelsius: 0.0012,
    source: by("ASTM D7547: no dye"),
  },
  {
    id: "motor",
    name: "Mogas 95",
    colours: ["straw", "colourless"],
    kgPerL: 0.745,
    perCelsius: 0.0012,
    source: by("EN 228: no aviation dye"),
  },
  {
    id: "kerosene",
    name: "Kerosene",
    colours: ["straw", "colourless"],
    kgPerL: 0.815,
    perCelsius: 0.0009,
    kerosene: true,
    source: by("ASTM D1655: clear to straw"),
  },
];

/** Grade by id; undefined if it is not on the list. */
export function fuelGrade(id: string): FuelGrade | undefined {
  return FUEL_GRADES.find((grade) => grade.id === id);
}

/**
 * Density of a grade in kg per litre at a temperature in °C. Valid range: a listed grade, −40 to 50 °C; throws QuantityError
 * otherwise.
 * Source: the grade's figure at 15 °C and its expansion, see above.
 * @example fuelDensity("100LL", 15) // 0.719
 */
export function fuelDensity(gradeId: string, celsius = 15): number {
  assertFinite("The fuel's temperature", celsius);
  const grade = fuelGrade(gradeId);
  if (!grade) throw new QuantityError(`Fuel grade ${gradeId} is not on the list.`);
  if (celsius < -40 || celsius > 50)
    throw new QuantityError(`Fuel temperature ${celsius} °C is outside −40 to 50 °C. Check it.`);
  return grade.kgPerL / (1 + grade.perCelsius * (celsius - 15));
}

/** Grades with this colour. "colourless" can also result from mixing two dyes. */
export function gradesOfColour(colour: FuelColour): FuelGrade[] {
  return FUEL_GRADES.filter((grade) => grade.colours.includes(colour));
}
