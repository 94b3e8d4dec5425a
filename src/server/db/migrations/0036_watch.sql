CREATE TABLE `gun_watch` (
	`head_id` varchar(40) NOT NULL,
	`gun_id` varchar(40),
	`at_ms` bigint NOT NULL,
	`watch` json NOT NULL,
	`kept_ms` bigint,
	CONSTRAINT `gun_watch_head_id` PRIMARY KEY(`head_id`)
);
