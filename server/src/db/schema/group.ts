import { varchar } from "drizzle-orm/mysql-core";

/** The default group. A server can hold several; without sign-in there is one. */
export const HOME_GROUP = "home";

/** Group of a row: groups never see each other's data. */
export const groupId = () => varchar("group_id", { length: 40 }).notNull().default(HOME_GROUP);
