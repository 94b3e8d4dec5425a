CREATE TABLE `calendar_entry` (
	`id` varchar(40) NOT NULL,
	`kind` varchar(10) NOT NULL,
	`name` varchar(80) NOT NULL,
	`area_id` varchar(40),
	`group_id` varchar(40),
	`first_day` varchar(10) NOT NULL,
	`start_wall` varchar(5) NOT NULL,
	`end_wall` varchar(5) NOT NULL,
	`rule` varchar(400),
	`uid` varchar(200) NOT NULL,
	`is_active` boolean NOT NULL DEFAULT true,
	`made_ms` bigint NOT NULL,
	CONSTRAINT `calendar_entry_id` PRIMARY KEY(`id`),
	CONSTRAINT `calendar_uid` UNIQUE(`uid`)
);
--> statement-breakpoint
CREATE TABLE `calendar_move` (
	`entry_id` varchar(40) NOT NULL,
	`day` varchar(10) NOT NULL,
	`to_day` varchar(10),
	`start_wall` varchar(5),
	`end_wall` varchar(5),
	CONSTRAINT `calendar_move_entry_id_day_pk` PRIMARY KEY(`entry_id`,`day`)
);
--> statement-breakpoint
CREATE TABLE `group_booth` (
	`group_id` varchar(40) NOT NULL,
	`station_id` varchar(40) NOT NULL,
	`wire_id` varchar(40),
	`learner` varchar(12),
	CONSTRAINT `group_booth_group_id_station_id_pk` PRIMARY KEY(`group_id`,`station_id`)
);
--> statement-breakpoint
CREATE TABLE `learner_group` (
	`id` varchar(40) NOT NULL,
	`name` varchar(40) NOT NULL,
	`level` varchar(8) NOT NULL,
	`size` int,
	`is_active` boolean NOT NULL DEFAULT true,
	CONSTRAINT `learner_group_id` PRIMARY KEY(`id`),
	CONSTRAINT `learner_group_name` UNIQUE(`name`)
);
--> statement-breakpoint
CREATE TABLE `lesson_given` (
	`id` varchar(40) NOT NULL,
	`group_id` varchar(40) NOT NULL,
	`item` varchar(16) NOT NULL,
	`day` varchar(10) NOT NULL,
	`at_ms` bigint NOT NULL,
	CONSTRAINT `lesson_given_id` PRIMARY KEY(`id`)
);
--> statement-breakpoint
CREATE TABLE `pair_word` (
	`pair_key` varchar(16) NOT NULL,
	`right_words` varchar(200),
	`wrong_words` varchar(200),
	`why_words` varchar(200),
	`exercise_words` varchar(200),
	`image_words` varchar(200),
	`is_wrong_here` boolean NOT NULL DEFAULT false,
	`source` varchar(120),
	`reviewed_by` varchar(60),
	`reviewed_day` varchar(10),
	CONSTRAINT `pair_word_pair_key` PRIMARY KEY(`pair_key`)
);
--> statement-breakpoint
CREATE TABLE `quiz_taken` (
	`id` varchar(40) NOT NULL,
	`group_id` varchar(40),
	`station_id` varchar(40),
	`day` varchar(10) NOT NULL,
	`at_ms` bigint NOT NULL,
	`idempotency_key` varchar(100) NOT NULL,
	`answers` json NOT NULL,
	CONSTRAINT `quiz_taken_id` PRIMARY KEY(`id`),
	CONSTRAINT `quiz_key` UNIQUE(`idempotency_key`)
);
--> statement-breakpoint
CREATE INDEX `calendar_group` ON `calendar_entry` (`group_id`);--> statement-breakpoint
CREATE INDEX `group_booth_station` ON `group_booth` (`station_id`);--> statement-breakpoint
CREATE INDEX `lesson_group` ON `lesson_given` (`group_id`);--> statement-breakpoint
CREATE INDEX `quiz_group` ON `quiz_taken` (`group_id`,`day`);