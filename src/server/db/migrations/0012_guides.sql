CREATE TABLE `guide_note` (
	`id` varchar(40) NOT NULL,
	`guide` varchar(12) NOT NULL,
	`step` varchar(24) NOT NULL,
	`family_id` varchar(40) NOT NULL,
	`words` varchar(400) NOT NULL,
	`is_instead` boolean NOT NULL,
	`by_id` varchar(40),
	`at_ms` bigint NOT NULL,
	CONSTRAINT `guide_note_id` PRIMARY KEY(`id`),
	CONSTRAINT `guide_note_where` UNIQUE(`guide`,`step`,`family_id`)
);
--> statement-breakpoint
CREATE TABLE `own_caution` (
	`hazard` varchar(12) NOT NULL,
	`words` varchar(240) NOT NULL,
	`by_id` varchar(40),
	`at_ms` bigint NOT NULL,
	CONSTRAINT `own_caution_hazard` PRIMARY KEY(`hazard`)
);
--> statement-breakpoint
CREATE TABLE `task_done` (
	`event_id` varchar(40) NOT NULL,
	`carrier_id` varchar(40) NOT NULL,
	`task` varchar(12) NOT NULL,
	`family_id` varchar(40),
	`minutes` double NOT NULL,
	`usual_min` double,
	`reason` varchar(12),
	`at_ms` bigint NOT NULL,
	CONSTRAINT `task_done_event_id` PRIMARY KEY(`event_id`)
);
--> statement-breakpoint
ALTER TABLE `carrier_now` ADD `follow_ups` json DEFAULT ('{}') NOT NULL;--> statement-breakpoint
CREATE INDEX `task_done_carrier` ON `task_done` (`carrier_id`);--> statement-breakpoint
CREATE INDEX `task_done_task` ON `task_done` (`task`,`family_id`);