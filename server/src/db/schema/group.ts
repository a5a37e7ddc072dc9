import { varchar } from "drizzle-orm/mysql-core";

/** The default group. A server can hold several; without sign-in there is one. */
export const HOME_GROUP = "home";

/** Group of a row: groups never see each other's data. There is no default, so that a forgotten group does not compile. */
export const groupId = () => varchar("group_id", { length: 40 }).notNull();
