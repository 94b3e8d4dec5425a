CREATE TABLE `offer` (
	`id` varchar(40) NOT NULL,
	`part_id` varchar(40) NOT NULL,
	`supplier_id` varchar(40) NOT NULL,
	`their_code` varchar(60),
	`pack_of` int NOT NULL,
	`bands` json NOT NULL,
	`lead_days` int,
	`is_sure` boolean NOT NULL,
	CONSTRAINT `offer_id` PRIMARY KEY(`id`),
	CONSTRAINT `offer_of` UNIQUE(`part_id`,`supplier_id`)
);
--> statement-breakpoint
CREATE TABLE `part_order` (
	`id` varchar(40) NOT NULL,
	`supplier_id` varchar(40) NOT NULL,
	`ordered_ms` bigint NOT NULL,
	`due_ms` bigint NOT NULL,
	`lines` json NOT NULL,
	`closed_ms` bigint,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `part_order_id` PRIMARY KEY(`id`),
	CONSTRAINT `part_order_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE TABLE `supplier` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`lead_days` int,
	`order_minor` int,
	`sheet_columns` json,
	CONSTRAINT `supplier_id` PRIMARY KEY(`id`),
	CONSTRAINT `supplier_name` UNIQUE(`name`)
);
--> statement-breakpoint
ALTER TABLE `part` ADD `shelf` varchar(40);--> statement-breakpoint
ALTER TABLE `part` ADD `shelf_most` int;--> statement-breakpoint
CREATE INDEX `offer_supplier` ON `offer` (`supplier_id`);--> statement-breakpoint
CREATE INDEX `part_order_open` ON `part_order` (`closed_ms`,`ordered_ms`);