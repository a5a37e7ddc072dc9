-- May run again: a start that was killed half way through goes on at the next one.
-- The id of a stream that is no preflight was called one.
ALTER TABLE `event` CHANGE COLUMN IF EXISTS `preflight_id` `stream_id` char(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `fluid_log` CHANGE COLUMN IF EXISTS `preflight_id` `stream_id` char(36) NOT NULL DEFAULT '';
