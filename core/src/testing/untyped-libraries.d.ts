/** Libraries used for comparison in tests, without types of their own. */
declare module "psychrolib" {
  const psychrolib: {
    SI: number;
    SetUnitSystem(system: number): void;
    GetStandardAtmPressure(metres: number): number;
    GetSatVapPres(celsius: number): number;
    GetHumRatioFromTDewPoint(dewPointC: number, pascal: number): number;
    GetMoistAirDensity(celsius: number, humidityRatio: number, pascal: number): number;
  };
  export default psychrolib;
}
declare module "ml-regression-theil-sen" {
  export class TheilSenRegression {
    constructor(x: readonly number[], y: readonly number[]);
    slope: number;
    intercept: number;
  }
}
