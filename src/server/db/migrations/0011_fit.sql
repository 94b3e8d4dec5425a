CREATE TABLE `carrier_now` (
	`carrier_id` varchar(40) NOT NULL,
	`settings` json NOT NULL,
	`tags` json NOT NULL,
	`gun_status` varchar(12),
	`status_ms` bigint,
	CONSTRAINT `carrier_now_carrier_id` PRIMARY KEY(`carrier_id`)
);
--> statement-breakpoint
CREATE TABLE `feeder_type` (
	`id` varchar(40) NOT NULL,
	`name` varchar(40) NOT NULL,
	`fit` json NOT NULL,
	CONSTRAINT `feeder_type_id` PRIMARY KEY(`id`),
	CONSTRAINT `feeder_type_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `kept_finding` (
	`id` varchar(40) NOT NULL,
	`station_id` varchar(40) NOT NULL,
	`rule` varchar(20) NOT NULL,
	`at_position` varchar(24) NOT NULL,
	`found_and_wanted` varchar(160) NOT NULL,
	`note` varchar(200),
	`chosen_by_id` varchar(40),
	`chosen_ms` bigint NOT NULL,
	CONSTRAINT `kept_finding_id` PRIMARY KEY(`id`),
	CONSTRAINT `kept_finding_what` UNIQUE(`station_id`,`rule`,`at_position`)
);
--> statement-breakpoint
CREATE TABLE `weld_procedure` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`fit` json NOT NULL,
	CONSTRAINT `weld_procedure_id` PRIMARY KEY(`id`),
	CONSTRAINT `weld_procedure_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `house_choice` MODIFY COLUMN `scope_type` varchar(12) NOT NULL;--> statement-breakpoint
ALTER TABLE `carrier` ADD `built` json;--> statement-breakpoint
ALTER TABLE `fit_family` ADD `fit` json;--> statement-breakpoint
ALTER TABLE `part` ADD `fit` json;--> statement-breakpoint
ALTER TABLE `site` ADD `gas_minor_per_m3` int;--> statement-breakpoint
ALTER TABLE `wire` ADD `fit` json;--> statement-breakpoint
UPDATE `part_kind` SET `walk_order` = `walk_order` * 10;--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'jump', 'jump liner', 'neck', 'gun', 'wear part', 'kg', false, 5, 0, 90, '["worn","blocked","kinked","due","knocked","toTry"]', '["jump liner","neck liner","front liner"]', `walk_order` + 1 FROM `part_kind` WHERE `kind_key` = 'neck';--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'clampring', 'clamp ring', 'diffuser', 'gun', 'wear part', 'arcHours', false, 2, 0, 30, '["worn","stripped","due","knocked","toTry"]', '["clamp ring","clamping ring","clamp nut"]', `walk_order` + 1 FROM `part_kind` WHERE `kind_key` = 'diffuser';
