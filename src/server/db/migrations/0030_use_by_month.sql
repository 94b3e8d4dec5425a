CREATE TABLE `head_month` (
	`head_id` varchar(40) NOT NULL,
	`month_ms` bigint NOT NULL,
	`used` json NOT NULL,
	CONSTRAINT `head_month_head_id_month_ms_pk` PRIMARY KEY(`head_id`,`month_ms`)
);
--> statement-breakpoint
-- A shop that is there already has its months counted at the next start.
INSERT INTO `meta` (`meta_key`, `value`) SELECT 'beingBuilt', 'months' FROM `site` LIMIT 1 ON DUPLICATE KEY UPDATE `value` = `meta`.`value`;
