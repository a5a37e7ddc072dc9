// Everything with schemas in it, for one chunk of the interface that loads when a file or a form is checked.
export { eventDataSchema } from "./events/event-data-schema";
export * from "./files/index";
