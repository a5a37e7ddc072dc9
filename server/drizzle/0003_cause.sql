-- May run again: a start that was killed half way through goes on at the next one.
ALTER TABLE `discrepancy` ADD COLUMN IF NOT EXISTS `cause` varchar(120);
