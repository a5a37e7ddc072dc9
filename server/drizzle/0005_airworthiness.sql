-- May run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `airworthiness` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `airworthiness_group_id_registration_pk` PRIMARY KEY(`group_id`,`registration`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `equipment_list` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`id` varchar(120) NOT NULL,
	`type_id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `equipment_list_group_id_id_pk` PRIMARY KEY(`group_id`,`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `flight_log` (
	`id` char(36) NOT NULL,
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`stream_id` char(36) NOT NULL,
	`off_at` datetime(3) NOT NULL,
	`on_at` datetime(3) NOT NULL,
	`pilot` varchar(120) NOT NULL,
	`line` json NOT NULL,
	`corrections` int NOT NULL DEFAULT 0,
	`struck` tinyint NOT NULL DEFAULT 0,
	`logged_by` varchar(120),
	CONSTRAINT `flight_log_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `meter_change` (
	`id` char(36) NOT NULL,
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`meter` varchar(120) NOT NULL,
	`at` datetime(3) NOT NULL,
	`old_reading` double NOT NULL,
	`new_reading` double NOT NULL,
	CONSTRAINT `meter_change_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `meter_totals` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`totals` json NOT NULL,
	`flights` int NOT NULL DEFAULT 0,
	`last_on` datetime(3),
	CONSTRAINT `meter_totals_group_id_registration_pk` PRIMARY KEY(`group_id`,`registration`)
);
--> statement-breakpoint
CREATE TABLE IF NOT EXISTS `work_done` (
	`id` char(36) NOT NULL,
	`place` int NOT NULL,
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`item` varchar(120) NOT NULL,
	`done_on` char(10) NOT NULL,
	`work` json,
	`leaves` json,
	CONSTRAINT `work_done_id_place_pk` PRIMARY KEY(`id`,`place`)
);
--> statement-breakpoint
ALTER TABLE `discrepancy` ADD COLUMN IF NOT EXISTS `item_id` varchar(120);--> statement-breakpoint
ALTER TABLE `discrepancy` ADD COLUMN IF NOT EXISTS `life` json;--> statement-breakpoint
ALTER TABLE `discrepancy` ADD COLUMN IF NOT EXISTS `merged_into` char(36);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `equipment_list_type` ON `equipment_list` (`group_id`,`type_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `flight_log_page` ON `flight_log` (`group_id`,`registration`,`off_at`,`id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `flight_log_pilot` ON `flight_log` (`group_id`,`pilot`,`off_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `flight_log_last` ON `flight_log` (`group_id`,`struck`,`registration`,`off_at`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `flight_log_stream` ON `flight_log` (`stream_id`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `meter_change_aircraft` ON `meter_change` (`group_id`,`registration`);--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `work_done_item` ON `work_done` (`group_id`,`registration`,`item`,`done_on`);--> statement-breakpoint
-- At which item something was found stands in the event that logged it.
UPDATE `discrepancy` d JOIN `event` e ON e.`id` = d.`id` AND e.`type` = 'discrepancy.opened' SET d.`item_id` = JSON_VALUE(e.`data`, '$.itemId') WHERE d.`item_id` IS NULL;
