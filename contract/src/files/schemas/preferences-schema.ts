import {
  BRAKE_WAYS,
  CARDS,
  HANDS,
  METHODS,
  RETURN_RULES,
  SURFACE_WAYS,
} from "@cravix/core/aircraft/preferences";
import { SAMPLE_FATES } from "@cravix/core/fuel/fuel-inputs";
import { array, object, string } from "yup";
import { key, name } from "../../bounds/fields";

/** A pilot's preferences, wherever they are transmitted. */
export const preferencesSchema = object({
  method: string().required().oneOf(METHODS),
  start: name(),
  hand: string().required().oneOf(HANDS),
  order: array().of(key()).max(300),
  surfaces: string().required().oneOf(SURFACE_WAYS),
  brake: string().required().oneOf(BRAKE_WAYS),
  afterInterruption: string().required().oneOf(RETURN_RULES),
  sample: string().oneOf(SAMPLE_FATES),
  cards: string().oneOf(CARDS),
});
