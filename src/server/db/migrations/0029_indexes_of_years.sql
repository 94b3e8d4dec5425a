CREATE INDEX `reading_head` ON `reading` (`head_id`,`what`);--> statement-breakpoint
CREATE INDEX `stoppage_from` ON `stoppage` (`from_ms`);--> statement-breakpoint
CREATE INDEX `stoppage_to` ON `stoppage` (`to_ms`);