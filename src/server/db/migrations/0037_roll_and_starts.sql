ALTER TABLE `telemetry_row` ADD `roll_fed_m` double;--> statement-breakpoint
ALTER TABLE `telemetry_row` ADD `starts_failed` double;