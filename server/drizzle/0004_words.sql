-- May run again: a start that was killed half way through goes on at the next one.
-- The id of a stream that is no preflight was called one.
ALTER TABLE `event` CHANGE COLUMN IF EXISTS `preflight_id` `stream_id` char(36) NOT NULL;--> statement-breakpoint
ALTER TABLE `fluid_log` CHANGE COLUMN IF EXISTS `preflight_id` `stream_id` char(36) NOT NULL DEFAULT '';--> statement-breakpoint
-- By its cause a discrepancy is known again: this one is named after a judgement whose id changed.
UPDATE `discrepancy` SET `cause` = REPLACE(`cause`, 'fuel.witnesses', 'fuel.sources') WHERE `cause` = 'fuel.witnesses' OR `cause` LIKE 'fuel.witnesses.%';
