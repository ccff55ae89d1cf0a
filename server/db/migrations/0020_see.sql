ALTER TABLE "files" ADD COLUMN "see" boolean;--> statement-breakpoint
ALTER TABLE "folders" ADD COLUMN "see" boolean;--> statement-breakpoint
ALTER TABLE "folders" ADD COLUMN "found" boolean;