import { isEventId, isName } from "@cravix/contract";
import { number, object, string } from "yup";

/** A name valid in a path. */
export const named = (max: number) =>
  string()
    .required()
    .max(max)
    .test("name", "a name", (value) => isName(value ?? ""));

/** Names in paths. An invalid one gives 404; databases would ignore trailing blanks. */
export const ofAircraft = object({ registration: named(20) });
export const ofPreflight = object({
  id: string()
    .required()
    .test("id", "an id", (value) => isEventId(value ?? "")),
});
export const ofList = object({
  hash: string()
    .required()
    .matches(/^sha256:[0-9a-f]{64}$/),
});
export const ofFile = object({ kind: named(40), id: named(120) });
export const ofVersion = object({
  kind: named(40),
  id: named(120),
  version: number().required().integer().min(1).max(2_000_000_000),
});
export const whichState = object({ state: string().oneOf(["open", "all"]).default("open") });
export const ofPhotograph = object({
  hash: string()
    .required()
    .matches(/^sha256:[0-9a-f]{64}$/),
});
