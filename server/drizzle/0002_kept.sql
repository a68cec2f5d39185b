ALTER TABLE `device_maps` ADD `by` text;--> statement-breakpoint
ALTER TABLE `device_maps` ADD `sum` text;--> statement-breakpoint
ALTER TABLE `events` ADD `sum` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `by` text;--> statement-breakpoint
ALTER TABLE `jobs` ADD `sum` text;--> statement-breakpoint
ALTER TABLE `shop_events` ADD `sum` text;