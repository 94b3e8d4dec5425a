CREATE TABLE `kit` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`lines` json NOT NULL,
	`made_ms` bigint NOT NULL,
	`closed_ms` bigint,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `kit_id` PRIMARY KEY(`id`),
	CONSTRAINT `kit_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE INDEX `kit_open` ON `kit` (`closed_ms`);