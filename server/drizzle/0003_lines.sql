-- made by the application itself before: derived, and made again at the start
DROP TABLE IF EXISTS `job_lines`;
--> statement-breakpoint
CREATE TABLE `job_lines` (
	`job` text PRIMARY KEY NOT NULL,
	`version` integer NOT NULL,
	`is_open` integer NOT NULL,
	`created_at` text NOT NULL,
	`last_at` text,
	`serial` text,
	`line` text NOT NULL,
	`parts` text,
	`used` text,
	`times` text,
	`uses` text,
	`last_stop` text,
	`next` text
);
--> statement-breakpoint
CREATE INDEX `job_lines_by_time` ON `job_lines` (`is_open`,`created_at`);--> statement-breakpoint
CREATE INDEX `job_lines_by_serial` ON `job_lines` (`serial`,`created_at`) WHERE "job_lines"."serial" IS NOT NULL;