CREATE TABLE `request_key` (
	`request_key` varchar(80) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
	`hash` char(64) NOT NULL,
	`at_ms` bigint NOT NULL,
	CONSTRAINT `request_key_request_key` PRIMARY KEY(`request_key`)
);
--> statement-breakpoint
CREATE TABLE `sign_in_try` (
	`who` varchar(160) NOT NULL,
	`from_ms` bigint NOT NULL,
	`failed` int NOT NULL,
	CONSTRAINT `sign_in_try_who` PRIMARY KEY(`who`)
);
--> statement-breakpoint
CREATE INDEX `request_key_at` ON `request_key` (`at_ms`);