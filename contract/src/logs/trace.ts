export * from "./trace-columns";
export * from "./trace-csv";
export * from "./trace-units";
