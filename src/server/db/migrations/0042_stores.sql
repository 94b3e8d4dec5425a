CREATE TABLE `store` (
	`id` varchar(40) NOT NULL,
	`name` varchar(40) NOT NULL,
	`fill_days` int NOT NULL,
	`is_active` boolean NOT NULL,
	CONSTRAINT `store_id` PRIMARY KEY(`id`),
	CONSTRAINT `store_name` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `stock_now` ADD `store_id` varchar(40) DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE `stock_now` DROP PRIMARY KEY, ADD PRIMARY KEY(`part_id`,`store_id`);--> statement-breakpoint
ALTER TABLE `area` ADD `store_id` varchar(40);
