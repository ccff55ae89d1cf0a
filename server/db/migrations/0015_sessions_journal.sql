CREATE TABLE "journal" (
	"id" bigserial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"who" text NOT NULL,
	"act" text NOT NULL,
	"about" text DEFAULT '' NOT NULL,
	"place" text DEFAULT '' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"id" text PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"account_id" text NOT NULL,
	"device" text NOT NULL,
	"place" text NOT NULL,
	"created" timestamp with time zone DEFAULT now() NOT NULL,
	"used" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "sessions_token_unique" UNIQUE("token")
);
--> statement-breakpoint
ALTER TABLE "accounts" ADD COLUMN "code_secret" text;--> statement-breakpoint
ALTER TABLE "accounts" ADD COLUMN "code_step" bigint;--> statement-breakpoint
ALTER TABLE "accounts" ADD COLUMN "recovery_codes" text[] DEFAULT '{}' NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_account_id_accounts_id_fk" FOREIGN KEY ("account_id") REFERENCES "public"."accounts"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "journal_at" ON "journal" USING btree ("at");--> statement-breakpoint
CREATE INDEX "sessions_account" ON "sessions" USING btree ("account_id");--> statement-breakpoint
create trigger told after insert or update or delete on sessions for each statement execute function told_topics('sessions');
--> statement-breakpoint
create trigger told after update or delete on accounts for each statement execute function told_topics('sessions');
