CREATE TABLE `device_maps` (
	`id` text NOT NULL,
	`revision` integer NOT NULL,
	`name` text NOT NULL,
	`kind` text NOT NULL,
	`body` text NOT NULL,
	`created_at` text NOT NULL,
	PRIMARY KEY(`id`, `revision`)
);
--> statement-breakpoint
CREATE TABLE `events` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`job` text NOT NULL,
	`id` text NOT NULL,
	`type` text NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`data` text NOT NULL,
	`received_at` text NOT NULL,
	FOREIGN KEY (`job`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE UNIQUE INDEX `events_id_unique` ON `events` (`id`);--> statement-breakpoint
CREATE INDEX `events_by_job` ON `events` (`job`,`seq`);--> statement-breakpoint
CREATE TABLE `jobs` (
	`id` text PRIMARY KEY NOT NULL,
	`map` text NOT NULL,
	`revision` integer NOT NULL,
	`targets` text NOT NULL,
	`policy` text NOT NULL,
	`title` text NOT NULL,
	`owner` text,
	`serial` text,
	`colour` text,
	`created_at` text NOT NULL
);
