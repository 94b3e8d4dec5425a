ALTER TABLE `carrier_now` ADD `found_closed` json DEFAULT ('[]') NOT NULL;--> statement-breakpoint
ALTER TABLE `carrier_now` ADD `stuck` json DEFAULT ('[]') NOT NULL;