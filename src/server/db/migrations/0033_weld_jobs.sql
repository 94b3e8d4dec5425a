CREATE TABLE `weld_job` (
	`id` varchar(40) NOT NULL,
	`name` varchar(80) NOT NULL,
	`wire_id` varchar(40) NOT NULL,
	`work` json NOT NULL,
	`on_id` varchar(40),
	`made_ms` bigint NOT NULL,
	`done_ms` bigint,
	`used_kg` double,
	`computed_kg` double,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `weld_job_id` PRIMARY KEY(`id`),
	CONSTRAINT `weld_job_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE INDEX `weld_job_open` ON `weld_job` (`done_ms`);