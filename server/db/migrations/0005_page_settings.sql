CREATE TABLE "retired_slugs" (
	"slug" text PRIMARY KEY NOT NULL,
	"page_id" text NOT NULL
);
--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "description" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "pages" ADD COLUMN "in_menu" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "retired_slugs" ADD CONSTRAINT "retired_slugs_page_id_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."pages"("id") ON DELETE cascade ON UPDATE no action;