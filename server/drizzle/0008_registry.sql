-- May run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `projection_version` (
	`name` varchar(60) NOT NULL,
	`version` int NOT NULL,
	CONSTRAINT `projection_version_name` PRIMARY KEY(`name`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `subject_version` (
	`subject` varchar(255) NOT NULL,
	`version` int NOT NULL DEFAULT 0,
	CONSTRAINT `subject_version_subject` PRIMARY KEY(`subject`)
);
--> statement-breakpoint
DROP INDEX IF EXISTS `preflight_registration` ON `preflight`;--> statement-breakpoint
ALTER TABLE `airworthiness` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `component_move` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `equipment_list` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `flight_log` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `loading_profile` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `meter_change` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `meter_totals` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `work_done` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `workshop_plan` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `event` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `list` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `preflight` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `reading` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `stream` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `discrepancy` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `aircraft` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `aircraft_type` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `airfield` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `crew` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `file_version` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `rule_set` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `fluid_log` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `person_entry` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `photograph` MODIFY COLUMN `group_id` varchar(40) NOT NULL;--> statement-breakpoint
ALTER TABLE `work_done` ADD COLUMN IF NOT EXISTS `at` datetime(3);--> statement-breakpoint
ALTER TABLE `work_done` ADD COLUMN IF NOT EXISTS `readings` json;--> statement-breakpoint
ALTER TABLE `stream` ADD COLUMN IF NOT EXISTS `version` int DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE `person_entry` ADD COLUMN IF NOT EXISTS `at` datetime(3);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `preflight_started` ON `preflight` (`group_id`,`registration`,`started_at`,`id`);
