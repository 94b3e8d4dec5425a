ALTER TABLE `ledger_event` DROP INDEX `ledger_key`;--> statement-breakpoint
ALTER TABLE `ledger_event` MODIFY COLUMN `idempotency_key` varchar(100);--> statement-breakpoint
ALTER TABLE `ledger_event` ADD `act_id` varchar(40) NOT NULL DEFAULT '' AFTER `root_id`;--> statement-breakpoint
ALTER TABLE `ledger_event` ADD `act_kind` varchar(12) NOT NULL DEFAULT '' AFTER `act_id`;--> statement-breakpoint
ALTER TABLE `ledger_event` ADD `line_no` int NOT NULL DEFAULT 0 AFTER `act_kind`;--> statement-breakpoint
UPDATE `ledger_event` SET `act_id` = `id`;--> statement-breakpoint
ALTER TABLE `ledger_event` ALTER COLUMN `act_id` DROP DEFAULT, ALTER COLUMN `act_kind` DROP DEFAULT, ALTER COLUMN `line_no` DROP DEFAULT;--> statement-breakpoint
ALTER TABLE `ledger_event` ADD CONSTRAINT `ledger_act` UNIQUE(`act_id`,`line_no`);--> statement-breakpoint
ALTER TABLE `ledger_event` ADD CONSTRAINT `ledger_key` UNIQUE(`idempotency_key`,`act_kind`);--> statement-breakpoint
CREATE INDEX `ledger_act_kind` ON `ledger_event` (`act_kind`,`happened_ms`);
