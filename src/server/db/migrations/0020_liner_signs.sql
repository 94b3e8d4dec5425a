ALTER TABLE `carrier_now` ADD `liner` json;--> statement-breakpoint
ALTER TABLE `house_choice` ADD `terms` json;