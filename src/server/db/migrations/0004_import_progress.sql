CREATE TABLE `import_progress` (
	`progress_key` varchar(100) NOT NULL,
	`stage` varchar(40) NOT NULL,
	`done` int NOT NULL,
	`of_rows` int NOT NULL,
	`is_cancelled` boolean NOT NULL DEFAULT false,
	`at_ms` bigint NOT NULL,
	CONSTRAINT `import_progress_progress_key` PRIMARY KEY(`progress_key`)
);
