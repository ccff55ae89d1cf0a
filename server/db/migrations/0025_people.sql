CREATE TABLE "invitations" (
	"id" text PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"rights" jsonb,
	"token" text NOT NULL,
	"by" text NOT NULL,
	"until" timestamp with time zone NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "invitations_email_unique" UNIQUE("email"),
	CONSTRAINT "invitations_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "password_links" (
	"token" text PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "accounts" ADD COLUMN "name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "accounts" ADD COLUMN "rights" jsonb;--> statement-breakpoint
ALTER TABLE "password_links" ADD CONSTRAINT "password_links_account_id_accounts_id_fk" FOREIGN KEY ("account_id") REFERENCES "public"."accounts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "password_links_account" ON "password_links" USING btree ("account_id");--> statement-breakpoint
create trigger told_added after insert on accounts for each statement execute function told_topics('sessions');
--> statement-breakpoint
create trigger told after insert or update or delete on invitations for each statement execute function told_topics('sessions');
