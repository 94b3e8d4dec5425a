CREATE TABLE IF NOT EXISTS `lease` (
	`name` varchar(40) NOT NULL,
	`holder` varchar(40) NOT NULL,
	`until_ms` bigint NOT NULL,
	CONSTRAINT `lease_name` PRIMARY KEY(`name`)
);
