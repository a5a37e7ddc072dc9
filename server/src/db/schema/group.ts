import { varchar } from "drizzle-orm/mysql-core";

/** The group whose record this server keeps. Several can live on one server; until people sign in there is one. */
export const HOME_GROUP = "home";

/** Which group a row belongs to: groups never see each other. */
export const groupId = () => varchar("group_id", { length: 40 }).notNull().default(HOME_GROUP);
