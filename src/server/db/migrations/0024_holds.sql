CREATE TABLE `refused_entry` (
	`id` bigint AUTO_INCREMENT NOT NULL,
	`at_ms` bigint NOT NULL,
	`from_name` varchar(130) NOT NULL,
	`why` varchar(300) NOT NULL,
	`entry_key` varchar(100) NOT NULL,
	CONSTRAINT `refused_entry_id` PRIMARY KEY(`id`),
	CONSTRAINT `refused_entry_entry_key_unique` UNIQUE(`entry_key`)
);
--> statement-breakpoint
CREATE INDEX `refused_entry_at` ON `refused_entry` (`at_ms`);--> statement-breakpoint
ALTER TABLE `ledger_event` MODIFY COLUMN `idempotency_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
--> statement-breakpoint
ALTER TABLE `usage_span` MODIFY COLUMN `idempotency_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
--> statement-breakpoint
ALTER TABLE `import_run` MODIFY COLUMN `idempotency_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
--> statement-breakpoint
ALTER TABLE `purchase` MODIFY COLUMN `idempotency_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
--> statement-breakpoint
ALTER TABLE `tin_weighing` MODIFY COLUMN `idempotency_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
--> statement-breakpoint
ALTER TABLE `photo` MODIFY COLUMN `idempotency_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
--> statement-breakpoint
ALTER TABLE `device` MODIFY COLUMN `link_key` varchar(100) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin;
--> statement-breakpoint
CREATE TRIGGER `ledger_only_grows_u` BEFORE UPDATE ON `ledger_event` FOR EACH ROW
IF @taking_over IS NULL THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'A line of the ledger is never changed: write a correction.'; END IF;
--> statement-breakpoint
CREATE TRIGGER `ledger_only_grows_d` BEFORE DELETE ON `ledger_event` FOR EACH ROW
IF @taking_over IS NULL THEN SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'A line of the ledger is never taken away: write a correction.'; END IF;
