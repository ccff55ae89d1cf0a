CREATE TABLE "hook_messages" (
	"id" text PRIMARY KEY NOT NULL,
	"hook_id" text NOT NULL,
	"event" text NOT NULL,
	"body" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"next" timestamp with time zone DEFAULT now() NOT NULL,
	"error" text,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "hooks" (
	"id" text PRIMARY KEY NOT NULL,
	"address" text NOT NULL,
	"events" text[] NOT NULL,
	"secret" text NOT NULL,
	"on" boolean DEFAULT true NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "hook_messages" ADD CONSTRAINT "hook_messages_hook_id_hooks_id_fk" FOREIGN KEY ("hook_id") REFERENCES "public"."hooks"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "hook_messages_hook" ON "hook_messages" USING btree ("hook_id","created");--> statement-breakpoint
CREATE INDEX "hook_messages_waiting" ON "hook_messages" USING btree ("next") WHERE "hook_messages"."state" = 'waiting';--> statement-breakpoint
create trigger told after insert or update or delete on hook_messages for each statement execute function told_topics('hooks');
