-- May run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `release_withdrawn` (
	`id` char(36) NOT NULL,
	`group_id` varchar(40) NOT NULL,
	`registration` varchar(20) NOT NULL,
	`of_release` char(36) NOT NULL,
	`why` varchar(400) NOT NULL,
	CONSTRAINT `release_withdrawn_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE INDEX IF NOT EXISTS `release_withdrawn_of` ON `release_withdrawn` (`group_id`,`of_release`);