import { formatNumber } from "../../units/format";
import type { GroupRule } from "./group-rule";

const COLOURS: Record<string, string> = {
  BLU: "blue",
  WHT: "white",
  GRN: "green",
  YLO: "yellow",
  YLO1: "yellow 1",
  YLO2: "yellow 2",
  AMB: "amber",
  RED: "red",
};

/** Groups that are understood and change nothing that is calculated. */
export const OTHER_RULES: readonly GroupRule[] = [
  {
    name: "automatic",
    shape: /^AUTO$/,
    source: "FM 15, 15.4: fully automatic",
    read(_, draft) {
      draft.automatic = true;
      return "automatic station";
    },
  },
  {
    name: "corrected",
    shape: /^(COR|CC[A-Z]|AMD|RTD)$/,
    source: "FM 15, 15.2; FM 51, 51.1; national: delayed",
    read: ([, code]) => (code === "AMD" ? "amended" : code === "RTD" ? "delayed" : "corrected"),
  },
  {
    name: "no change",
    shape: /^NOSIG$/,
    source: "FM 15, 15.14: no significant change within two hours",
    read: () => "no significant change in the next two hours",
  },
  {
    name: "colour state",
    shape: /^(?:(BLACK)(BLU|WHT|GRN|YLO[12]?|AMB|RED)?|(BLU|WHT|GRN|YLO[12]?|AMB|RED))\+?$/,
    source: "military colour states of aerodromes",
    read([, black, blackColour, plainColour]) {
      const colour = COLOURS[blackColour ?? plainColour ?? ""];
      return [
        ...(colour ? [`colour state ${colour}`] : []),
        ...(black ? ["not usable for other reasons"] : []),
      ].join(", ");
    },
  },
  {
    name: "sea",
    shape: /^W(M?\d\d|\/\/)\/(?:S(\d|\/)|H(\d{1,3}|\/{3}))$/,
    source: "FM 15, 15.13.5: sea temperature, state of the sea or wave height in decimetres",
    read: ([, celsius, , waves]) =>
      `sea ${celsius === "//" ? "temperature not reported" : `${celsius?.replace("M", "−")} °C`}${waves && waves !== "///" ? `, waves ${formatNumber(Number(waves) / 10)} m` : ""}`,
  },
  {
    name: "icing or turbulence",
    shape: /^([56])(\d)(\d{3})(\d)$/,
    source: "FM 51, national: 6 icing, 5 turbulence; layer in hundreds of feet, depth in thousands",
    read: ([, what, , base, depth]) =>
      `${what === "6" ? "icing" : "turbulence"} from ${formatNumber(Number(base) * 100)} ft${Number(depth) > 0 ? ` through ${formatNumber(Number(depth) * 1000)} ft` : ""}`,
  },
  {
    name: "amendments",
    shape: /^AMD NOT SKED$/,
    source: "US form of forecasts",
    read: () => "no amendments planned",
  },
];
