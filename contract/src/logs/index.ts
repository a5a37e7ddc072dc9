export * from "./fluid-csv";
export * from "./receipt-csv";
