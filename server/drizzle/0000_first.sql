CREATE TABLE `event` (
	`id` char(36) NOT NULL,
	`preflight_id` char(36) NOT NULL,
	`device_id` char(36) NOT NULL,
	`crew_id` varchar(120) NOT NULL,
	`type` varchar(40) NOT NULL,
	`at` datetime(3) NOT NULL,
	`received_at` datetime(3) NOT NULL,
	`discrepancy_id` char(36),
	`undoes_id` char(36),
	`data` json NOT NULL,
	CONSTRAINT `event_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `list` (
	`hash` char(71) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `list_hash` PRIMARY KEY(`hash`)
);
--> statement-breakpoint
CREATE TABLE `preflight` (
	`id` char(36) NOT NULL,
	`registration` varchar(20),
	`crew_id` varchar(120),
	`list_hash` char(71),
	`started_at` datetime(3),
	`last_at` datetime(3),
	`conditions` json NOT NULL,
	`answered` int NOT NULL DEFAULT 0,
	`found` int NOT NULL DEFAULT 0,
	`verdict` varchar(20),
	`decision` varchar(20),
	`signed_at` datetime(3),
	`event_count` int NOT NULL DEFAULT 0,
	CONSTRAINT `preflight_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `reading` (
	`preflight_id` char(36) NOT NULL,
	`reading_key` varchar(120) NOT NULL,
	`registration` varchar(20),
	`value` double NOT NULL,
	`unit` varchar(12) NOT NULL,
	`at` datetime(3) NOT NULL,
	`crew_id` varchar(120),
	CONSTRAINT `reading_preflight_id_reading_key_pk` PRIMARY KEY(`preflight_id`,`reading_key`)
);
--> statement-breakpoint
CREATE TABLE `discrepancy` (
	`id` char(36) NOT NULL,
	`registration` varchar(20) NOT NULL,
	`station_id` varchar(120) NOT NULL,
	`text` text NOT NULL,
	`grade` varchar(10) NOT NULL,
	`opened_at` datetime(3) NOT NULL,
	`opened_by` varchar(120) NOT NULL,
	`measure` varchar(200),
	`observations` json NOT NULL,
	`closed_at` datetime(3),
	`closed_by` varchar(120),
	`closed_how` text,
	CONSTRAINT `discrepancy_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `aircraft` (
	`registration` varchar(20) NOT NULL,
	`type_id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `aircraft_registration` PRIMARY KEY(`registration`)
);
--> statement-breakpoint
CREATE TABLE `aircraft_type` (
	`id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `aircraft_type_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `airfield` (
	`id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `airfield_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `crew` (
	`id` varchar(120) NOT NULL,
	`name` varchar(80) NOT NULL,
	`role` varchar(20) NOT NULL,
	CONSTRAINT `crew_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `rule_set` (
	`id` varchar(120) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `rule_set_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `event_preflight` ON `event` (`preflight_id`,`id`);--> statement-breakpoint
CREATE INDEX `event_discrepancy` ON `event` (`discrepancy_id`);--> statement-breakpoint
CREATE INDEX `event_undoes` ON `event` (`undoes_id`);--> statement-breakpoint
CREATE INDEX `preflight_registration` ON `preflight` (`registration`,`id`);--> statement-breakpoint
CREATE INDEX `reading_memory` ON `reading` (`registration`,`reading_key`,`at`);--> statement-breakpoint
CREATE INDEX `discrepancy_registration` ON `discrepancy` (`registration`,`closed_at`);