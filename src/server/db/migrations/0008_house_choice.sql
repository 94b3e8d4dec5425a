CREATE TABLE `house_choice` (
	`id` varchar(40) NOT NULL,
	`code` varchar(4) NOT NULL,
	`scope_type` varchar(8) NOT NULL,
	`scope_key` varchar(40) NOT NULL,
	`chosen_option` varchar(20) NOT NULL,
	`note` varchar(200),
	`chosen_by_id` varchar(40),
	`chosen_ms` bigint NOT NULL,
	CONSTRAINT `house_choice_id` PRIMARY KEY(`id`),
	CONSTRAINT `house_choice_scope` UNIQUE(`code`,`scope_type`,`scope_key`)
);
