/** The readings that the arithmetic knows by name. A list file uses these keys in its measuring items. */
export const READING = {
  tankDip: (tankId: string) => `fuel.dip.${tankId}`,
  oilLevel: "oil.level",
  magnetoBase: "magneto.base",
  magnetoRight: "magneto.right",
  magnetoLeft: "magneto.left",
  carburettorHot: "carburettor-heat.hot",
  carburettorColdAgain: "carburettor-heat.cold-again",
  altimeter: "altimeter",
  windFrom: "wind.from",
  windSpeed: "wind.speed",
  windGust: "wind.gust",
} as const;

/** The item whose answer is the runway in use. */
export const RUNWAY_ITEM = "runway-in-use";
