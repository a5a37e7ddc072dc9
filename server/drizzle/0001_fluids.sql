CREATE TABLE `fluid_log` (
	`id` char(32) NOT NULL,
	`registration` varchar(20) NOT NULL,
	`fluid` varchar(4) NOT NULL,
	`entry` varchar(10) NOT NULL,
	`part` varchar(120),
	`amount` double NOT NULL,
	`unit` varchar(12) NOT NULL,
	`hours` double,
	`grade` varchar(40),
	`receipt` varchar(40),
	`heat` varchar(4),
	`at` datetime(3) NOT NULL,
	`preflight_id` char(36),
	CONSTRAINT `fluid_log_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX `fluid_log_history` ON `fluid_log` (`registration`,`fluid`,`at`,`id`);--> statement-breakpoint
CREATE INDEX `fluid_log_preflight` ON `fluid_log` (`preflight_id`);