CREATE TABLE `life_fit` (
	`kind_key` varchar(20) NOT NULL,
	`class_key` varchar(20) NOT NULL,
	`basis` varchar(120) NOT NULL,
	`fit` json NOT NULL,
	`made_ms` bigint NOT NULL,
	CONSTRAINT `life_fit_kind_key_class_key_pk` PRIMARY KEY(`kind_key`,`class_key`)
);
--> statement-breakpoint
CREATE TABLE `told_life` (
	`kind_key` varchar(20) NOT NULL,
	`class_key` varchar(20) NOT NULL,
	`usual` double NOT NULL,
	`early` double NOT NULL,
	`told_by_id` varchar(40),
	`told_ms` bigint NOT NULL,
	CONSTRAINT `told_life_kind_key_class_key_pk` PRIMARY KEY(`kind_key`,`class_key`)
);
--> statement-breakpoint
CREATE TABLE `tryout` (
	`id` varchar(40) NOT NULL,
	`kind_key` varchar(20) NOT NULL,
	`question` varchar(120) NOT NULL,
	`name_a` varchar(60) NOT NULL,
	`name_b` varchar(60) NOT NULL,
	`part_a_id` varchar(40),
	`part_b_id` varchar(40),
	`stations_a` json NOT NULL,
	`stations_b` json NOT NULL,
	`ratio` double NOT NULL,
	`needed` int NOT NULL,
	`from_ms` bigint NOT NULL,
	`to_ms` bigint,
	`verdict` json,
	`started_by_id` varchar(40),
	CONSTRAINT `tryout_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
ALTER TABLE `house_rule` ADD `basis` json;