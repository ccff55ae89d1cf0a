CREATE TABLE "group_members" (
	"group_id" text NOT NULL,
	"guest_id" text NOT NULL,
	CONSTRAINT "group_members_group_id_guest_id_pk" PRIMARY KEY("group_id","guest_id")
);
--> statement-breakpoint
CREATE TABLE "groups" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "groups_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "guest_links" (
	"token" text PRIMARY KEY NOT NULL,
	"guest_id" text NOT NULL,
	"gate_id" text NOT NULL,
	"asked" jsonb NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "guests" (
	"id" text PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"password_hash" text,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"came" timestamp with time zone,
	CONSTRAINT "guests_email_unique" UNIQUE("email")
);
--> statement-breakpoint
ALTER TABLE "page_versions" ADD COLUMN "by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_group_id_groups_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."groups"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_guest_id_guests_id_fk" FOREIGN KEY ("guest_id") REFERENCES "public"."guests"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "guest_links" ADD CONSTRAINT "guest_links_guest_id_guests_id_fk" FOREIGN KEY ("guest_id") REFERENCES "public"."guests"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "guest_links" ADD CONSTRAINT "guest_links_gate_id_gates_id_fk" FOREIGN KEY ("gate_id") REFERENCES "public"."gates"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "group_members_guest" ON "group_members" USING btree ("guest_id");--> statement-breakpoint
CREATE INDEX "guest_links_guest" ON "guest_links" USING btree ("guest_id");--> statement-breakpoint
CREATE INDEX "guest_links_until" ON "guest_links" USING btree ("until");--> statement-breakpoint
CREATE INDEX "guests_created" ON "guests" USING btree ("created");--> statement-breakpoint
create trigger told after insert or delete on guests for each statement execute function told_topics('gates');
--> statement-breakpoint
create trigger told after insert or update or delete on groups for each statement execute function told_topics('gates');
--> statement-breakpoint
create trigger told after insert or delete on group_members for each statement execute function told_topics('gates');
