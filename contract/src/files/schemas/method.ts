import { METHOD_TAGS } from "@cravix/core";
import { string } from "yup";

/** Only with one way of doing it. */
export const method = () => string().oneOf(METHOD_TAGS);
