CREATE TABLE `photos` (
	`job` text NOT NULL,
	`hash` text NOT NULL,
	`type` text NOT NULL,
	`width` integer NOT NULL,
	`height` integer NOT NULL,
	`bytes` integer NOT NULL,
	`received_at` text NOT NULL,
	PRIMARY KEY(`job`, `hash`),
	FOREIGN KEY (`job`) REFERENCES `jobs`(`id`) ON UPDATE no action ON DELETE no action
);
--> statement-breakpoint
CREATE TABLE `shop_events` (
	`seq` integer PRIMARY KEY AUTOINCREMENT NOT NULL,
	`id` text NOT NULL,
	`type` text NOT NULL,
	`at` text NOT NULL,
	`by` text NOT NULL,
	`data` text NOT NULL,
	`received_at` text NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX `shop_events_id_unique` ON `shop_events` (`id`);--> statement-breakpoint
ALTER TABLE `jobs` ADD `limits` text;