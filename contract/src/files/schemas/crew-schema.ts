import { array, object, string } from "yup";
import { CREW_ROLES } from "../../api/api-types";
import { id, words } from "./parts";

export const crewSchema = object({
  format: string().required().oneOf(["cravix.crew/1"]),
  members: array()
    .of(
      object({
        id: id(),
        name: words(80),
        role: string().required().oneOf(CREW_ROLES),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(1000),
}).noUnknown();
