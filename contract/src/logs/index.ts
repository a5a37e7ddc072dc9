export * from "./flight-csv";
export * from "./fluid-csv";
export * from "./list-csv";
export * from "./plan-csv";
export * from "./read-flight-csv";
export * from "./receipt-csv";
