INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'plug', 'control plug', 'pin', 'gun', 'durable part', 'matings', 0, 10, 0, NULL, '["loose","broken","due","knocked","toTry"]', '["control plug","trigger plug","control lead"]', 5
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'plug');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'cable', 'gun cable', 'liner', 'gun', 'durable part', 'arcHours', 0, 30, 0, NULL, '["broken","burnt","kinked","due","knocked","toTry"]', '["cable","cable assembly","power cable","strain relief"]', 7
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'cable');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'handle', 'handle', 'neck', 'gun', 'durable part', 'arcHours', 0, 8, 0, NULL, '["broken","burnt","loose","due","knocked","toTry"]', '["handle","handle shell","grip"]', 8
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'handle');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'trigger', 'trigger', 'neck', 'gun', 'wear part', 'starts', 0, 6, 0, NULL, '["worn","broken","loose","due","knocked","toTry"]', '["trigger","gun switch","torch switch","switch"]', 9
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'trigger');
--> statement-breakpoint
INSERT INTO `part_kind` (`kind_key`, `name`, `path_column`, `rides`, `part_class`, `life_unit`, `can_clean`, `change_min`, `clean_min`, `confirm_days`, `reasons`, `synonyms`, `walk_order`)
SELECT 'lead', 'work lead and clamp', 'gas', 'station', 'durable part', 'arcHours', 0, 10, 0, NULL, '["loose","burnt","broken","due","knocked","toTry"]', '["work clamp","clamp","work lead","ground clamp","ground lead","earth clamp","earth lead"]', 18
FROM `part_kind` WHERE `kind_key` = 'tip' AND NOT EXISTS (SELECT 1 FROM `part_kind` AS `k` WHERE `k`.`kind_key` = 'lead');
--> statement-breakpoint
UPDATE `part_kind` SET `reasons` = '["worn","poorContact","holdsNot","blocked","wireCatches","linerSlips","stripped","due","knocked","toTry"]' WHERE `kind_key` = 'diffuser' AND `reasons` = '["worn","stripped","blocked","due","knocked","toTry"]';
--> statement-breakpoint
UPDATE `part_kind` SET `walk_order` = FIELD(`kind_key`, 'hub', 'inlet', 'rolls', 'outlet', 'orings', 'plug', 'liner', 'cable', 'handle', 'trigger', 'neck', 'jump', 'diffuser', 'clampring', 'tip', 'nozzle', 'insulator', 'gas', 'lead') - 1;
