-- May run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `component_move` (
	`id` char(36) NOT NULL,
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`component` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	`fitted` tinyint NOT NULL,
	`position` varchar(60),
	`totals` json NOT NULL,
	`as_it_is` json,
	CONSTRAINT `component_move_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `workshop_plan` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`id` char(36) NOT NULL,
	`at` datetime(3) NOT NULL,
	`crew_id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `workshop_plan_group_id` PRIMARY KEY(`group_id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `person_entry` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`person_id` varchar(120) NOT NULL,
	`entry` varchar(120) NOT NULL,
	`kind` varchar(4) NOT NULL,
	`event_id` char(36) NOT NULL,
	`body` json,
	CONSTRAINT `person_entry_group_id_person_id_kind_entry_pk` PRIMARY KEY(`group_id`,`person_id`,`kind`,`entry`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `photograph` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`hash` char(71) NOT NULL,
	`at` datetime(3) NOT NULL,
	`crew_id` varchar(120),
	`width` int NOT NULL,
	`height` int NOT NULL,
	`data` mediumblob NOT NULL,
	CONSTRAINT `photograph_group_id_hash_pk` PRIMARY KEY(`group_id`,`hash`)
);
--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `component_move_aircraft` ON `component_move` (`group_id`,`registration`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `component_move_component` ON `component_move` (`group_id`,`component`,`id`);