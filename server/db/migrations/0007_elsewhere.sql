ALTER TABLE "uses" ADD COLUMN "to_page" text;--> statement-breakpoint
ALTER TABLE "uses" ADD COLUMN "elsewhere" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE INDEX "uses_to_page" ON "uses" USING btree ("to_page");