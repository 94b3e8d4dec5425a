CREATE TABLE `reading` (
	`event_id` varchar(40) NOT NULL,
	`carrier_id` varchar(40) NOT NULL,
	`what` varchar(12) NOT NULL,
	`method` varchar(16) NOT NULL,
	`how` varchar(8) NOT NULL,
	`value` double,
	`left_at` double,
	`grade` varchar(16),
	`verdict` varchar(4) NOT NULL,
	`head_id` varchar(40),
	`wire_id` varchar(40),
	`limit_value` double,
	`made_from` json NOT NULL,
	`at_ms` bigint NOT NULL,
	`kg` double,
	`arc_hours` double,
	CONSTRAINT `reading_event_id` PRIMARY KEY(`event_id`)
);
--> statement-breakpoint
ALTER TABLE `carrier_now` ADD `alarms` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `carrier_now` ADD `calibration` json;--> statement-breakpoint
CREATE INDEX `reading_carrier` ON `reading` (`carrier_id`,`at_ms`);