ALTER TABLE `station_now` ADD `neck_id` varchar(40);
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'conduit', 'wire conduit', 'spool', 'station', 'wear part', 'kg', 0, 30, 0, 180, '["worn","blocked","kinked","due","knocked","toTry"]', '["conduit","wire conduit","drum conduit","wire hose","feed hose"]', 1
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'conduit');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'booster', 'booster', 'spool', 'station', 'durable part', 'kg', 0, 20, 0, NULL, '["worn","broken","due","knocked","toTry"]', '["booster","assist motor","assist feeder","drum motor","wire booster"]', 2
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'booster');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'cutter', 'wire cutter blade', 'tip', 'station', 'wear part', 'arcHours', 0, 10, 0, 30, '["worn","broken","due","knocked","toTry"]', '["cutter","wire cutter","cutter blade","wire cutter blade","shear"]', 17
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'cutter');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'reamer', 'reamer blade', 'nozzle', 'station', 'wear part', 'arcHours', 1, 10, 3, 30, '["worn","broken","due","knocked","toTry"]', '["reamer","reamer blade","ream blade","cleaning station","nozzle cleaner"]', 20
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'reamer');
--> statement-breakpoint
UPDATE `part_kind` SET `walk_order` = FIELD(`kind_key`, 'hub', 'conduit', 'booster', 'inlet', 'rolls', 'outlet', 'orings', 'plug', 'liner', 'cable', 'handle', 'trigger', 'neck', 'jump', 'diffuser', 'clampring', 'tip', 'cutter', 'nozzle', 'insulator', 'reamer', 'gas', 'lead') - 1;
