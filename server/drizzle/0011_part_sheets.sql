-- May run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `part_sheet` (
	`group_id` varchar(40) NOT NULL,
	`id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `part_sheet_group_id_id_pk` PRIMARY KEY(`group_id`,`id`)
);
--> statement-breakpoint
ALTER TABLE `aircraft_type` ADD COLUMN IF NOT EXISTS `library` char(71);
