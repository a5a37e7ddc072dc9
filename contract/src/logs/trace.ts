export * from "./trace-columns";
export * from "./trace-csv";
