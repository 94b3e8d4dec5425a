CREATE TABLE `feeder` (
	`equipment_id` varchar(40) NOT NULL,
	`head_id` varchar(40) NOT NULL,
	`token_hash` varchar(64) NOT NULL,
	`is_active` boolean NOT NULL DEFAULT true,
	`boot_id` varchar(40),
	`seq` int,
	`at_ms` bigint,
	`wire_fed_m` double,
	`arc_on_s` double,
	`arc_starts` double,
	`is_arc_on` boolean NOT NULL DEFAULT false,
	`received_ms` bigint,
	`clock_off_ms` bigint,
	`dirty_ms` bigint,
	CONSTRAINT `feeder_equipment_id` PRIMARY KEY(`equipment_id`),
	CONSTRAINT `feeder_token_hash_unique` UNIQUE(`token_hash`)
);
--> statement-breakpoint
CREATE TABLE `telemetry_hour` (
	`head_id` varchar(40) NOT NULL,
	`equipment_id` varchar(40) NOT NULL,
	`hour_ms` bigint NOT NULL,
	`to_ms` bigint NOT NULL,
	`wire_fed_m` double NOT NULL,
	`arc_on_s` double NOT NULL,
	`arc_starts` double NOT NULL,
	CONSTRAINT `telemetry_hour_head_id_equipment_id_hour_ms_pk` PRIMARY KEY(`head_id`,`equipment_id`,`hour_ms`)
);
--> statement-breakpoint
CREATE TABLE `telemetry_row` (
	`equipment_id` varchar(40) NOT NULL,
	`boot_id` varchar(40) NOT NULL,
	`seq` int NOT NULL,
	`at_ms` bigint NOT NULL,
	`wire_fed_m` double NOT NULL,
	`arc_on_s` double NOT NULL,
	`arc_starts` double NOT NULL,
	`amps` double,
	`volts` double,
	`motor_amps` double,
	`gas_flow_lpm` double,
	CONSTRAINT `telemetry_row_equipment_id_boot_id_seq_pk` PRIMARY KEY(`equipment_id`,`boot_id`,`seq`)
);
--> statement-breakpoint
CREATE INDEX `feeder_head` ON `feeder` (`head_id`);--> statement-breakpoint
CREATE INDEX `feeder_dirty` ON `feeder` (`dirty_ms`);--> statement-breakpoint
CREATE INDEX `telemetry_time` ON `telemetry_row` (`equipment_id`,`at_ms`);--> statement-breakpoint
CREATE INDEX `telemetry_age` ON `telemetry_row` (`at_ms`);