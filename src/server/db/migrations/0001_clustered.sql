DROP INDEX `life_carrier` ON `life`;--> statement-breakpoint
DROP INDEX `usage_head` ON `usage_span`;--> statement-breakpoint
ALTER TABLE `life` DROP PRIMARY KEY;--> statement-breakpoint
ALTER TABLE `usage_span` DROP PRIMARY KEY;--> statement-breakpoint
ALTER TABLE `life` ADD PRIMARY KEY(`carrier_id`,`from_event_id`);--> statement-breakpoint
ALTER TABLE `usage_span` ADD PRIMARY KEY(`head_id`,`from_ms`,`id`);