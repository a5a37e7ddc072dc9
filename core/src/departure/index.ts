export * from "./briefing";
export * from "./briefing-kinds";
export * from "./departure-words";
export * from "./judge-departure";
export * from "./make-it-fit";
export * from "./minima-sets";
export * from "./radio-sense";
export * from "./reckon";
