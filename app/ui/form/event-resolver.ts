import type { EventData, EventType } from "@cravix/core/checklist/stream/events";
import type { FieldErrors, FieldValues, Resolver } from "react-hook-form";
import { type Entry, errorsOf, type FormFault } from "./form-faults";
import { loadFormLibrary } from "./form-library";

/**
 * Validates a form by the event it records: first what `read` finds, in the form's own words, then the schema of the contract, which
 * the server applies too.
 */
export function eventResolver<D extends FieldValues, T extends EventType>(
  type: T,
  read: (values: D) => Entry<EventData[T]>,
): Resolver<D, unknown, EventData[T]> {
  return async (values) => {
    const entry = read(values);
    if ("faults" in entry) return { values: {}, errors: errorsOf<D>(entry.faults) };
    const faults = await schemaFaults(type, entry.data, Object.keys(values));
    return faults.length === 0
      ? { values: entry.data, errors: {} }
      : { values: {}, errors: errorsOf<D>(faults) };
  };
}

type YupErrors = FieldErrors<Record<string, unknown>>;

/** Faults by the schema, at fields of the form where they are its own. */
async function schemaFaults(type: EventType, data: object, fields: readonly string[]): Promise<FormFault[]> {
  const { yupResolver, eventDataSchema } = await loadSchemas();
  if (!yupResolver || !eventDataSchema) return [];
  const { errors } = await yupResolver(eventDataSchema(type), undefined, { raw: true })(
    data as Record<string, unknown>,
    undefined,
    { fields: {}, shouldUseNativeValidation: false },
  );
  return flat(errors as YupErrors, "").map(({ at, words }) => ({
    at: fields.includes(at) ? at : "root",
    words,
  }));
}

/** The schemas load with the first entry. Offline on a page seen for the first time they may be out of reach: the server checks. */
async function loadSchemas() {
  try {
    const [{ yupResolver }, { eventDataSchema }] = await Promise.all([
      loadFormLibrary(),
      import("@cravix/contract/schemas"),
    ]);
    return { yupResolver, eventDataSchema };
  } catch {
    return {};
  }
}

function flat(errors: object, path: string): FormFault[] {
  return Object.entries(errors).flatMap(([name, error]) => {
    const at = path === "" ? name : `${path}.${name}`;
    if (typeof error !== "object" || error === null) return [];
    const { message, type } = error as { message?: unknown; type?: unknown };
    if (typeof message === "string") return [{ at, words: wordsOf(message, type) }];
    return flat(error, at);
  });
}

/** "done must be at most 4000 characters" without the field's name, which is shown above it. */
function wordsOf(message: string, type: unknown): string {
  if (type === "required" || type === "optionality") return "Fill this in.";
  const rest = message.replace(/^\S+ (?=must|has|contains|is|field)/, "");
  return rest === message ? message : `This ${rest}.`;
}
