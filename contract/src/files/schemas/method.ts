import { METHOD_TAGS } from "@cravix/core/aircraft/preferences";
import { string } from "yup";

/** Limits an item or rule to one method. */
export const method = () => string().oneOf(METHOD_TAGS);
