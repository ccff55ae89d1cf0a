ALTER TABLE "downloads" ADD COLUMN "page" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "signpost" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "campaign" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "referrer" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "referrer_path" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "country" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "device" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "browser" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "system" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "downloads" ADD COLUMN "language" text DEFAULT '' NOT NULL;