CREATE TABLE `technique_told` (
	`id` varchar(40) NOT NULL,
	`group_id` varchar(40),
	`station_id` varchar(40) NOT NULL,
	`was` varchar(12) NOT NULL,
	`day` varchar(10) NOT NULL,
	`at_ms` bigint NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `technique_told_id` PRIMARY KEY(`id`),
	CONSTRAINT `technique_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE INDEX `technique_group` ON `technique_told` (`group_id`,`day`);