ALTER TABLE `device` ADD `link_key` varchar(100);--> statement-breakpoint
ALTER TABLE `device` ADD CONSTRAINT `device_link_key_unique` UNIQUE(`link_key`);