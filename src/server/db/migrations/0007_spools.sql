CREATE TABLE `spool` (
	`id` varchar(40) NOT NULL,
	`number` int NOT NULL,
	`created_ms` bigint NOT NULL,
	CONSTRAINT `spool_id` PRIMARY KEY(`id`),
	CONSTRAINT `spool_number` UNIQUE(`number`)
);
--> statement-breakpoint
CREATE TABLE `spool_now` (
	`spool_id` varchar(40) NOT NULL,
	`wire_id` varchar(40),
	`label_kg` double,
	`lot` varchar(60),
	`tare_kg` double,
	`in_ms` bigint NOT NULL,
	`head_id` varchar(40),
	`since_ms` bigint,
	`base_kg` double,
	`base_sd_kg` double,
	`base_ms` bigint,
	`base_how` varchar(10),
	`lost_kg` double NOT NULL,
	`gone_ms` bigint,
	`gone_kg` double,
	CONSTRAINT `spool_now_spool_id` PRIMARY KEY(`spool_id`)
);
--> statement-breakpoint
ALTER TABLE `head_now` ADD `spool_id` varchar(40);--> statement-breakpoint
ALTER TABLE `head_now` ADD `spool_sd_kg` double;--> statement-breakpoint
ALTER TABLE `head_now` ADD `loaded_ms` bigint;--> statement-breakpoint
ALTER TABLE `ledger_event` ADD `spool_id` varchar(40);--> statement-breakpoint
ALTER TABLE `wire` ADD `tare_kg` double;--> statement-breakpoint
ALTER TABLE `wire` ADD `core_mm` double;--> statement-breakpoint
ALTER TABLE `wire` ADD `full_mm` double;--> statement-breakpoint
ALTER TABLE `wire` ADD `width_mm` double;--> statement-breakpoint
CREATE INDEX `spool_gone` ON `spool_now` (`gone_ms`);--> statement-breakpoint
CREATE INDEX `ledger_spool` ON `ledger_event` (`spool_id`);