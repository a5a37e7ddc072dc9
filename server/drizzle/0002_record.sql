-- Each statement may run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `stream` (
	`id` char(36) NOT NULL,
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`kind` varchar(12) NOT NULL,
	`seen` tinyint NOT NULL DEFAULT 0,
	CONSTRAINT `stream_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `discrepancy_key` (
	`id` char(36) NOT NULL,
	CONSTRAINT `discrepancy_key_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `file_version` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`kind` varchar(40) NOT NULL,
	`file_id` varchar(120) NOT NULL,
	`version` int NOT NULL,
	`hash` char(71) NOT NULL,
	`before_hash` char(71),
	`at` datetime(3) NOT NULL,
	`crew_id` varchar(120),
	`body` json NOT NULL,
	CONSTRAINT `file_version_group_id_kind_file_id_version_pk` PRIMARY KEY(`group_id`,`kind`,`file_id`,`version`)
);
--> statement-breakpoint
ALTER TABLE `event`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	ADD COLUMN IF NOT EXISTS `stream` varchar(12) DEFAULT 'preflight' NOT NULL,
	ADD COLUMN IF NOT EXISTS `device_at` datetime(3),
	ADD COLUMN IF NOT EXISTS `rules` tinyint DEFAULT 2 NOT NULL,
	ADD COLUMN IF NOT EXISTS `counts` tinyint DEFAULT 1 NOT NULL;
--> statement-breakpoint
ALTER TABLE `list`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`group_id`,`hash`);
--> statement-breakpoint
ALTER TABLE `aircraft`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`group_id`,`registration`);
--> statement-breakpoint
ALTER TABLE `aircraft_type`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`group_id`,`id`);
--> statement-breakpoint
ALTER TABLE `airfield`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`group_id`,`id`);
--> statement-breakpoint
ALTER TABLE `crew`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`group_id`,`id`);
--> statement-breakpoint
ALTER TABLE `rule_set`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`group_id`,`id`);
--> statement-breakpoint
UPDATE `fluid_log` SET `preflight_id` = '' WHERE `preflight_id` IS NULL;
--> statement-breakpoint
ALTER TABLE `fluid_log`
	MODIFY COLUMN `preflight_id` char(36) NOT NULL DEFAULT '',
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP PRIMARY KEY, ADD PRIMARY KEY(`id`,`preflight_id`),
	DROP INDEX IF EXISTS `fluid_log_history`,
	ADD INDEX `fluid_log_history` (`group_id`,`registration`,`fluid`,`at`,`id`);
--> statement-breakpoint
ALTER TABLE `preflight`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP INDEX IF EXISTS `preflight_registration`,
	ADD INDEX `preflight_registration` (`group_id`,`registration`,`id`);
--> statement-breakpoint
ALTER TABLE `reading`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	DROP INDEX IF EXISTS `reading_memory`,
	ADD INDEX `reading_memory` (`group_id`,`registration`,`reading_key`,`at`);
--> statement-breakpoint
ALTER TABLE `discrepancy`
	ADD COLUMN IF NOT EXISTS `group_id` varchar(40) DEFAULT 'home' NOT NULL,
	ADD COLUMN IF NOT EXISTS `withdrawn_at` datetime(3),
	ADD COLUMN IF NOT EXISTS `withdrawn_by` varchar(120),
	DROP INDEX IF EXISTS `discrepancy_registration`,
	ADD INDEX `discrepancy_registration` (`group_id`,`registration`,`closed_at`);
--> statement-breakpoint
-- What is on record now goes on meaning what it means now.
UPDATE `event` SET `rules` = 1;
--> statement-breakpoint
UPDATE `event` t JOIN `event` u ON u.`undoes_id` = t.`id` AND u.`type` = 'item.undone'
	SET t.`counts` = 0 WHERE t.`discrepancy_id` IS NOT NULL;
--> statement-breakpoint
INSERT IGNORE INTO `stream` (`id`, `kind`, `seen`) SELECT DISTINCT `preflight_id`, 'preflight', 1 FROM `event`;
--> statement-breakpoint
INSERT IGNORE INTO `discrepancy_key` (`id`)
	SELECT DISTINCT `discrepancy_id` FROM `event` WHERE `discrepancy_id` IS NOT NULL;
--> statement-breakpoint
-- A reading belongs to who read it.
UPDATE `reading` r JOIN `event` e ON e.`preflight_id` = r.`preflight_id` AND e.`at` = r.`at`
	AND e.`type` = 'reading.taken' AND JSON_VALUE(e.`data`, '$.key') = r.`reading_key`
	SET r.`crew_id` = e.`crew_id`;
