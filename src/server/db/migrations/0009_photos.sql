CREATE TABLE `photo` (
	`id` varchar(40) NOT NULL,
	`of_type` varchar(8) NOT NULL,
	`of_key` varchar(80) NOT NULL,
	`width_px` int NOT NULL,
	`height_px` int NOT NULL,
	`jpeg` mediumblob NOT NULL,
	`small` mediumblob NOT NULL,
	`taken_ms` bigint NOT NULL,
	`person_id` varchar(40),
	`device_id` varchar(40),
	`hidden_ms` bigint,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `photo_id` PRIMARY KEY(`id`),
	CONSTRAINT `photo_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE INDEX `photo_of` ON `photo` (`of_type`,`of_key`);