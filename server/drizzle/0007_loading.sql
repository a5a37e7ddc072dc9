-- May run again: a start that was killed half way through goes on at the next one.
CREATE TABLE IF NOT EXISTS `loading_profile` (
	`group_id` varchar(40) NOT NULL DEFAULT 'home',
	`registration` varchar(20) NOT NULL,
	`body` json NOT NULL,
	CONSTRAINT `loading_profile_group_id_registration_pk` PRIMARY KEY(`group_id`,`registration`)
);
