ALTER TABLE `import_run` ADD `headings` json;--> statement-breakpoint
ALTER TABLE `import_run` ADD `sheet_columns` json;