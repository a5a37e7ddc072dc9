export * from "./fluid-csv";
export * from "./list-csv";
export * from "./receipt-csv";
