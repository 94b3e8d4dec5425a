CREATE TABLE `area` (
	`id` varchar(40) NOT NULL,
	`site_id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`walk_order` int NOT NULL,
	`built` json NOT NULL,
	CONSTRAINT `area_id` PRIMARY KEY(`id`),
	CONSTRAINT `area_name` UNIQUE(`site_id`,`name`)
);
--> statement-breakpoint
CREATE TABLE `carrier` (
	`id` varchar(40) NOT NULL,
	`type` varchar(8) NOT NULL,
	`name` varchar(40) NOT NULL,
	`station_id` varchar(40),
	`positions` json NOT NULL,
	CONSTRAINT `carrier_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `device` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`area_id` varchar(40),
	`station_id` varchar(40),
	`link_hash` varchar(64),
	`link_expires_ms` bigint,
	`token_hash` varchar(64),
	`bound_ms` bigint,
	`is_active` boolean NOT NULL DEFAULT true,
	CONSTRAINT `device_id` PRIMARY KEY(`id`),
	CONSTRAINT `device_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `fit_family` (
	`id` varchar(40) NOT NULL,
	`name` varchar(40) NOT NULL,
	CONSTRAINT `fit_family_id` PRIMARY KEY(`id`),
	CONSTRAINT `fit_family_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `head_now` (
	`head_id` varchar(40) NOT NULL,
	`run_on` json NOT NULL,
	`last_entry_ms` bigint,
	`spool_wire_id` varchar(40),
	`spool_kg` double,
	`spool_ms` bigint,
	`spool_used_kg` double,
	CONSTRAINT `head_now_head_id` PRIMARY KEY(`head_id`)
);
--> statement-breakpoint
CREATE TABLE `holiday` (
	`day` varchar(10) NOT NULL,
	`name` varchar(60) NOT NULL,
	CONSTRAINT `holiday_day` PRIMARY KEY(`day`)
);
--> statement-breakpoint
CREATE TABLE `house_rule` (
	`id` varchar(40) NOT NULL,
	`kind_key` varchar(20) NOT NULL,
	`class_key` varchar(20) NOT NULL,
	`change_limit` double,
	`clean_limit` double,
	`look_days` int,
	`chosen_by_id` varchar(40),
	`chosen_ms` bigint NOT NULL,
	CONSTRAINT `house_rule_id` PRIMARY KEY(`id`),
	CONSTRAINT `house_rule_scope` UNIQUE(`kind_key`,`class_key`)
);
--> statement-breakpoint
CREATE TABLE `import_run` (
	`idempotency_key` varchar(100) NOT NULL,
	`kind` varchar(12) NOT NULL,
	`at_ms` bigint NOT NULL,
	`by_id` varchar(40),
	`summary` json NOT NULL,
	CONSTRAINT `import_run_idempotency_key` PRIMARY KEY(`idempotency_key`)
);
--> statement-breakpoint
CREATE TABLE `ledger_event` (
	`id` varchar(40) NOT NULL,
	`root_id` varchar(40) NOT NULL,
	`kind` varchar(16) NOT NULL,
	`carrier_id` varchar(40),
	`station_id` varchar(40),
	`part_id` varchar(40),
	`happened_ms` bigint NOT NULL,
	`happened_precision` varchar(6) NOT NULL,
	`logged_ms` bigint NOT NULL,
	`person_id` varchar(40),
	`device_id` varchar(40),
	`note` varchar(200),
	`body` json NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `ledger_event_id` PRIMARY KEY(`id`),
	CONSTRAINT `ledger_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE TABLE `life` (
	`from_event_id` varchar(40) NOT NULL,
	`carrier_id` varchar(40) NOT NULL,
	`position` varchar(24) NOT NULL,
	`kind_key` varchar(20) NOT NULL,
	`part_id` varchar(40),
	`class_key` varchar(20),
	`from_ms` bigint NOT NULL,
	`from_precision` varchar(6) NOT NULL,
	`entry_age` varchar(8) NOT NULL,
	`to_ms` bigint NOT NULL,
	`to_precision` varchar(6) NOT NULL,
	`to_event_id` varchar(40) NOT NULL,
	`out_reason` varchar(12) NOT NULL,
	`parts` int NOT NULL,
	`wire_kg` double,
	`arc_hours` double,
	`arc_starts` double,
	`cleanings` int NOT NULL,
	`matings` int NOT NULL,
	`spools` int NOT NULL,
	CONSTRAINT `life_from_event_id` PRIMARY KEY(`from_event_id`)
);
--> statement-breakpoint
CREATE TABLE `meta` (
	`meta_key` varchar(40) NOT NULL,
	`value` varchar(200) NOT NULL,
	CONSTRAINT `meta_meta_key` PRIMARY KEY(`meta_key`)
);
--> statement-breakpoint
CREATE TABLE `mount` (
	`child_id` varchar(40) NOT NULL,
	`on_id` varchar(40) NOT NULL,
	`from_ms` bigint NOT NULL,
	`to_ms` bigint,
	`from_event_id` varchar(40) NOT NULL,
	CONSTRAINT `mount_child_id_from_event_id_pk` PRIMARY KEY(`child_id`,`from_event_id`)
);
--> statement-breakpoint
CREATE TABLE `part` (
	`id` varchar(40) NOT NULL,
	`code` varchar(40) NOT NULL,
	`name` varchar(80) NOT NULL,
	`kind_key` varchar(20) NOT NULL,
	`family_id` varchar(40),
	`wire_size_mm` double,
	`price_minor` int,
	CONSTRAINT `part_id` PRIMARY KEY(`id`),
	CONSTRAINT `part_code_unique` UNIQUE(`code`)
);
--> statement-breakpoint
CREATE TABLE `part_kind` (
	`kind_key` varchar(20) NOT NULL,
	`name` varchar(40) NOT NULL,
	`path_column` varchar(12) NOT NULL,
	`rides` varchar(8) NOT NULL,
	`part_class` varchar(20) NOT NULL,
	`life_unit` varchar(12) NOT NULL,
	`can_clean` boolean NOT NULL,
	`change_min` double NOT NULL,
	`clean_min` double NOT NULL,
	`confirm_days` int,
	`reasons` json NOT NULL,
	`synonyms` json NOT NULL,
	`walk_order` int NOT NULL,
	CONSTRAINT `part_kind_kind_key` PRIMARY KEY(`kind_key`)
);
--> statement-breakpoint
CREATE TABLE `person` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`role` varchar(12) NOT NULL,
	`password_hash` varchar(200),
	`is_active` boolean NOT NULL DEFAULT true,
	CONSTRAINT `person_id` PRIMARY KEY(`id`),
	CONSTRAINT `person_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `position_now` (
	`carrier_id` varchar(40) NOT NULL,
	`position` varchar(24) NOT NULL,
	`part_id` varchar(40),
	`fitted_ms` bigint,
	`fitted_event_id` varchar(40),
	`entry_age` varchar(8),
	`cleaned_ms` bigint,
	`cleanings` int NOT NULL,
	`seen_ms` bigint,
	`chain_from_ms` bigint,
	`matings` int NOT NULL,
	`spools` int NOT NULL,
	`since_fitted` json,
	`since_cleaned` json,
	CONSTRAINT `position_now_carrier_id_position_pk` PRIMARY KEY(`carrier_id`,`position`)
);
--> statement-breakpoint
CREATE TABLE `session` (
	`token_hash` varchar(64) NOT NULL,
	`person_id` varchar(40) NOT NULL,
	`expires_ms` bigint NOT NULL,
	CONSTRAINT `session_token_hash` PRIMARY KEY(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `shift_pattern` (
	`id` varchar(40) NOT NULL,
	`area_id` varchar(40),
	`name` varchar(40) NOT NULL,
	`weekdays` json NOT NULL,
	`start_wall` varchar(5) NOT NULL,
	`end_wall` varchar(5) NOT NULL,
	`breaks` json NOT NULL,
	CONSTRAINT `shift_pattern_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `site` (
	`id` varchar(40) NOT NULL,
	`name` varchar(80) NOT NULL,
	`zone` varchar(40) NOT NULL,
	`currency` varchar(3) NOT NULL,
	`units` varchar(8) NOT NULL,
	CONSTRAINT `site_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `station` (
	`id` varchar(40) NOT NULL,
	`area_id` varchar(40) NOT NULL,
	`name` varchar(24) NOT NULL,
	`place_word` varchar(20) NOT NULL,
	`class_key` varchar(20) NOT NULL,
	`walk_order` int NOT NULL,
	`walk_minutes` double NOT NULL,
	`stop_group` varchar(40),
	`built_except` json NOT NULL,
	CONSTRAINT `station_id` PRIMARY KEY(`id`),
	CONSTRAINT `station_name` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `station_class` (
	`class_key` varchar(20) NOT NULL,
	`name` varchar(40) NOT NULL,
	`labour_minor_per_hour` int NOT NULL,
	`stop_minor_per_hour` int NOT NULL,
	CONSTRAINT `station_class_class_key` PRIMARY KEY(`class_key`)
);
--> statement-breakpoint
CREATE TABLE `station_now` (
	`station_id` varchar(40) NOT NULL,
	`head_id` varchar(40),
	`gun_id` varchar(40),
	`down_since_ms` bigint,
	`down_position` varchar(24),
	`is_parked` boolean NOT NULL,
	`last_ms` bigint,
	CONSTRAINT `station_now_station_id` PRIMARY KEY(`station_id`)
);
--> statement-breakpoint
CREATE TABLE `stock_now` (
	`part_id` varchar(40) NOT NULL,
	`on_hand` int NOT NULL,
	`counted_ms` bigint,
	CONSTRAINT `stock_now_part_id` PRIMARY KEY(`part_id`)
);
--> statement-breakpoint
CREATE TABLE `stoppage` (
	`from_event_id` varchar(40) NOT NULL,
	`station_id` varchar(40) NOT NULL,
	`position` varchar(24),
	`from_ms` bigint NOT NULL,
	`to_ms` bigint,
	`ended_by` varchar(8),
	`minutes` double,
	CONSTRAINT `stoppage_from_event_id` PRIMARY KEY(`from_event_id`)
);
--> statement-breakpoint
CREATE TABLE `usage_span` (
	`id` varchar(40) NOT NULL,
	`head_id` varchar(40) NOT NULL,
	`from_ms` bigint NOT NULL,
	`to_ms` bigint NOT NULL,
	`source` varchar(10) NOT NULL,
	`wire_kg` double,
	`arc_hours` double,
	`arc_starts` double,
	`logged_ms` bigint NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	CONSTRAINT `usage_span_id` PRIMARY KEY(`id`),
	CONSTRAINT `usage_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE TABLE `wire` (
	`id` varchar(40) NOT NULL,
	`name` varchar(60) NOT NULL,
	`construction` varchar(20) NOT NULL,
	`diameter_mm` double NOT NULL,
	`density_g_per_cm3` double NOT NULL,
	`spool_kg` double NOT NULL,
	CONSTRAINT `wire_id` PRIMARY KEY(`id`),
	CONSTRAINT `wire_name_unique` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE INDEX `carrier_station` ON `carrier` (`station_id`);--> statement-breakpoint
CREATE INDEX `ledger_root` ON `ledger_event` (`root_id`);--> statement-breakpoint
CREATE INDEX `ledger_carrier` ON `ledger_event` (`carrier_id`,`root_id`);--> statement-breakpoint
CREATE INDEX `ledger_station` ON `ledger_event` (`station_id`,`root_id`);--> statement-breakpoint
CREATE INDEX `ledger_part` ON `ledger_event` (`part_id`,`root_id`);--> statement-breakpoint
CREATE INDEX `ledger_happened` ON `ledger_event` (`happened_ms`);--> statement-breakpoint
CREATE INDEX `ledger_logged` ON `ledger_event` (`logged_ms`);--> statement-breakpoint
CREATE INDEX `life_carrier` ON `life` (`carrier_id`);--> statement-breakpoint
CREATE INDEX `life_kind` ON `life` (`kind_key`,`class_key`,`to_ms`);--> statement-breakpoint
CREATE INDEX `life_to` ON `life` (`to_event_id`);--> statement-breakpoint
CREATE INDEX `mount_on` ON `mount` (`on_id`);--> statement-breakpoint
CREATE INDEX `station_area` ON `station` (`area_id`);--> statement-breakpoint
CREATE INDEX `stoppage_station` ON `stoppage` (`station_id`,`from_ms`);--> statement-breakpoint
CREATE INDEX `usage_head` ON `usage_span` (`head_id`,`from_ms`);