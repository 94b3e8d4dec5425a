CREATE TABLE `knowledge` (
	`id` varchar(40) NOT NULL,
	`body` json,
	`at_ms` bigint NOT NULL,
	`by_id` varchar(40),
	CONSTRAINT `knowledge_id` PRIMARY KEY(`id`)
);
