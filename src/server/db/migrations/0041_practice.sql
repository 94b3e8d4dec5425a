CREATE TABLE `drill_set` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`group_id` varchar(40),
	`scenarios` json NOT NULL,
	`at_ms` bigint NOT NULL,
	`is_active` boolean NOT NULL DEFAULT true,
	CONSTRAINT `drill_set_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `practice_attempt` (
	`id` varchar(40) NOT NULL,
	`group_id` varchar(40),
	`station_id` varchar(40),
	`set_id` varchar(40),
	`day` varchar(10) NOT NULL,
	`at_ms` bigint NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	`complaint` varchar(40) NOT NULL,
	`faults` json NOT NULL,
	`acts` json NOT NULL,
	`minutes` double NOT NULL,
	`best_min` double NOT NULL,
	CONSTRAINT `practice_attempt_id` PRIMARY KEY(`id`),
	CONSTRAINT `practice_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE INDEX `drill_set_active` ON `drill_set` (`is_active`);--> statement-breakpoint
CREATE INDEX `practice_group` ON `practice_attempt` (`group_id`,`at_ms`);