CREATE TABLE `purchase` (
	`id` varchar(40) NOT NULL,
	`month` varchar(7) NOT NULL,
	`area_id` varchar(40),
	`item` varchar(120) NOT NULL,
	`kind_key` varchar(20),
	`part_id` varchar(40),
	`wire_id` varchar(40),
	`quantity` double NOT NULL,
	`logged_ms` bigint NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `purchase_id` PRIMARY KEY(`id`),
	CONSTRAINT `purchase_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE TABLE `tin_weighing` (
	`id` varchar(40) NOT NULL,
	`area_id` varchar(40) NOT NULL,
	`kind_key` varchar(20) NOT NULL,
	`day` varchar(10) NOT NULL,
	`at_ms` bigint NOT NULL,
	`grams` double NOT NULL,
	`grams_each` double NOT NULL,
	`pieces` int NOT NULL,
	`is_emptied` boolean NOT NULL,
	`logged_ms` bigint NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `tin_weighing_id` PRIMARY KEY(`id`),
	CONSTRAINT `tin_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
DROP INDEX `ledger_part` ON `ledger_event`;--> statement-breakpoint
CREATE INDEX `purchase_month` ON `purchase` (`month`);--> statement-breakpoint
CREATE INDEX `tin_area` ON `tin_weighing` (`area_id`,`kind_key`);--> statement-breakpoint
CREATE INDEX `ledger_part_kind` ON `ledger_event` (`part_id`,`kind`,`happened_ms`);--> statement-breakpoint
CREATE INDEX `life_ended` ON `life` (`to_ms`);